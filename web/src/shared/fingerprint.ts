/** A fingerprint as it is read out: in groups of four. */
export const groups = (fingerprint: string) => fingerprint.match(/.{4}/g) ?? []
/** The same in a line. */
export const inGroups = (fingerprint: string) => groups(fingerprint).join(' ')
