const phases: Record<string, string> = {
  choose_way: 'Sequence',
  prepare: 'Temperature',
  as_found: 'As found',
  adjust: 'Adjust',
  verify: 'Check pass',
  sign: 'Sign',
  await_hot: 'Hot pass',
  done: 'Signed',
}

/** The name of a phase of the job. */
export function phaseName(phase: string): string {
  return phases[phase] ?? phase
}
