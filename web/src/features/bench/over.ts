/** What stands over the bench: the list of keys, the question of play, and the valve that a question is about. */
export interface Over {
  help: boolean
  /** The head as a whole, where the screen has no room for it. */ head: boolean
  playing: boolean
  /** It is left as it is. */ leaving: string
  /** It does not stand clear, and is to be taken. */ taking: string
  /** It is in, and set all the same. */ setThough: string
}

export const nothingOpen = (): Over => ({
  help: false,
  head: false,
  playing: false,
  leaving: '',
  taking: '',
  setThough: '',
})
