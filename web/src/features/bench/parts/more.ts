/** A way out of the bench, or something that is seldom done on it. */
export interface Way {
  title: string
  to?: string
  does?: () => void
  /** It is the list of keys, which gives the focus back. */ keys?: boolean
}
