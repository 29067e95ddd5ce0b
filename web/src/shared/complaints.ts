/** What a vehicle is brought in for, and the side of the limits it points to. */
export const complaints = [
  { value: 'ticks', title: 'Ticks', points: 'points to loose' },
  { value: 'rough_idle', title: 'Rough idle', points: 'points to tight' },
  { value: 'back_fires', title: 'Back-fires', points: 'points to a tight intake' },
  { value: 'smokes', title: 'Smokes', points: 'points to tight' },
  { value: 'hard_start', title: 'Hard to start', points: 'points to tight' },
  { value: 'low_compression', title: 'Low compression', points: 'points to tight' },
  { value: 'misfires', title: 'Misfires', points: 'points to tight' },
  { value: 'no_power', title: 'No power', points: 'points to tight' },
  { value: 'fuel_use', title: 'Uses more fuel', points: 'points to tight' },
  { value: 'oil_smell', title: 'Smells of oil', points: 'look at cover and gasket' },
  { value: 'ticks_by_nature', title: 'Ticks by nature', points: 'this engine always did' },
  { value: 'none', title: 'No complaint', points: 'due, or checked' },
] as const
