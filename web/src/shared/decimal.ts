/**
 * A figure as people type it: comma or point, an optional sign, nothing else. Null where it is none, so that a slip is refused
 * beside its field and never stored as something else.
 */
export function decimal(text: string): number | null {
  const plain = text.trim().replace('−', '-').replace(',', '.')
  return /^[+-]?(\d+(\.\d*)?|\.\d+)$/.test(plain) ? Number(plain) : null
}

/**
 * A list of figures as people type it, apart by spaces or semicolons (a comma is a decimal here as everywhere). What is none stays as it
 * was typed, for its fault to be said and not to vanish.
 */
export function decimals(text: string): number[] {
  const parts = text.split(/[\s;]+/).filter(Boolean)
  return parts.map((x) => decimal(x) ?? (x as unknown as number))
}

/** Why a typed figure cannot be taken; empty where it can, and for an empty text where nothing need be said. */
export function slip(text: string, optional = false): string {
  if (text.trim() === '') return optional ? '' : 'Type a figure.'
  return decimal(text) === null ? `“${text.trim()}” is no figure: digits with one comma or point.` : ''
}
