/**
 * Where the workshop's own program is, in a tab that was sent from it to the demo beside it: a port of this same host. The tab's name keeps
 * it, for that is read at no cost and goes with the tab. Empty in every other tab.
 */
function sentFrom(): string {
  const asked = /[?&]home=(\d{1,5})(&|$)/.exec(location.search)?.[1]
  if (asked) window.name = `metronix-home-${asked}`
  const port = /^metronix-home-(\d{1,5})$/.exec(window.name)?.[1]
  return port && port !== location.port ? `${location.protocol}//${location.hostname}:${port}/` : ''
}

export const home = sentFrom()
