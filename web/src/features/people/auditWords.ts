const words: Record<string, string> = {
  signed_in: 'signed in',
  signed_out: 'signed out',
  sign_in_refused: 'not let in',
  'change-pin': 'changed the PIN of',
  'add-person': 'added',
  'change-person': 'changed',
  'put-sign-out': 'changed when one is signed out',
  'start-job': 'started a job',
  'correct-job': 'corrected what a job started from',
  'put-job-on-board': 'took a job off the board, or back',
  'add-vehicle': 'added a vehicle',
  'put-vehicle': 'corrected a vehicle',
  'put-vehicle-on-board': 'took a vehicle off the lists, or back',
  'put-intervals': 'changed when a vehicle is due',
  'put-own-cards': 'changed a vehicle’s own limits',
  'put-outside-visits': 'changed a vehicle’s visits to other shops',
  'add-gauge-set': 'added feelers',
  'put-gauge-set': 'changed feelers',
  'remove-gauge-set': 'removed feelers',
  'put-engine': 'stored an engine',
  'remove-engine': 'removed an engine',
  'put-shop': 'changed the workshop’s settings or stock',
  'export-archive': 'took everything out',
  'import-archive': 'took an archive in',
}

/** What a line of the audit list says was done. What it does not know stands as it is. */
export const auditWords = (what: string) => words[what] ?? what
