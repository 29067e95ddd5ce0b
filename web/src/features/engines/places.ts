/** What the fields of a sheet are called on the screen, by their last name in the format. */
const fields: Record<string, string> = {
  ivo_btdc_deg: 'Intake opens before TDC',
  ivc_abdc_deg: 'Intake closes after BDC',
  evo_bbdc_deg: 'Exhaust opens before BDC',
  evc_atdc_deg: 'Exhaust closes after TDC',
  intake_centre_atdc_deg: 'Intake lobe centre ATDC',
  exhaust_centre_btdc_deg: 'Exhaust lobe centre BTDC',
  at_lift_mm: 'Checking lift',
  required_margin_deg: 'Ramp allowance',
  marks_deg: 'Marks on the pulley',
  firing_order: 'Firing order',
  firing_angles_deg: 'Firing angles',
  name: 'Name',
  source: 'Source',
  pitch_mm: 'Thread pitch',
  ratio: 'Rocker or finger ratio',
  eccentricity_mm: 'Eccentricity',
  locknut_torque_nm: 'Lock nut',
  locknut_torque_lbf_ft: 'Lock nut, lbf·ft',
  check_turns: 'Turns before the check',
  text: 'What is seen',
  at_deg: 'At',
  period_deg: 'How often it comes round',
  where: 'Where',
  socket_mm: 'Socket',
  bolts: 'Bolts',
  rounds: 'Rounds',
  torque_nm: 'Torque',
  torque_lbf_ft: 'Torque, lbf·ft',
  open_minutes: 'Sealant may stand open',
  cure_minutes: 'It cures for',
  sealant_points: 'Sealant at',
  variable_lift: 'Variable lift',
  angle_deg: 'Bank angle',
  cylinders: 'Cylinders',
  valves: 'Row',
  intake: 'Intake',
  exhaust: 'Exhaust',
  crank_deg: 'Degrees',
  set: 'Valves',
}

/** The label of one field. */
export const label = (name: string) => fields[name] ?? name

/** Where something is on the screen: "Head 2, row 1", "Card 1, Intake". Empty for the whole sheet. */
export function placed(location: string): string {
  const parts: string[] = []
  for (const [, name, index] of location.matchAll(/([a-z_]+)(?:\[(\d+)\])?/g)) {
    const n = index === undefined ? '' : ` ${Number(index) + 1}`
    if (name === 'banks') parts.push(`Head${n}`)
    else if (name === 'rows') parts.push(`row${n}`)
    else if (name === 'signs') parts.push(`Sign${n}`)
    else if (name === 'strip_list') parts.push(`What comes off, line${n}`)
    else if (name === 'closing') parts.push('The cover')
    else if (name === 'clearances') parts.push(`Card${n}`)
    else if (name === 'own_sequence') parts.push(`The maker’s own order, line${n}`)
    else if (name && name in fields) parts.push(fields[name]! + (name === 'firing_order' || !n ? '' : `${n}`))
  }
  return parts.join(', ')
}

/** A message with its place in front, where it does not name it itself. */
export function saidAt(p: { location: string; message: string }): string {
  const at = placed(p.location)
  return at && /^(This field|There is no field|Text is|A number|A whole|A list|An object|true or)/.test(p.message)
    ? `${at}: ${p.message[0]!.toLowerCase()}${p.message.slice(1)}`
    : p.message
}
