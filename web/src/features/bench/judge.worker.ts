import '../../../gen/wasm_exec.js'
import type { Asked, Said } from './judge'

/** What the Go of cmd/bench lays down. */
interface Bench {
  open(text: string): Said
  state(at: string, screen: string, others: string[]): Said
  take(happening: string, at: string): Said
}
const given = globalThis as unknown as {
  Go: new () => { importObject: WebAssembly.Imports; run(of: WebAssembly.Instance): Promise<void> }
  metronixBench: Bench
}

async function start(url: string, integrity: string): Promise<Said> {
  const go = new given.Go()
  const module = await fetch(url, { integrity })
  const { instance } = await WebAssembly.instantiateStreaming(module, go.importObject)
  void go.run(instance) // it stays
  return {}
}

/** How often a state is said before the browser has all of it in its fast form, and the pause between, ms (measured). */
const cold = 8
const pause = 100
let warm = 0

/** Says the state a few times where nobody waits for it: the first are five times slower. */
function warmUp() {
  if (warm++ >= cold) return
  state(new Date().toISOString(), '', '[]')
  setTimeout(warmUp, pause)
}

const state = (at: string, screen: string, others: string) =>
  given.metronixBench.state(at, screen, JSON.parse(others) as string[])

/** Takes a happening and says the state after it, as a screen shows it beside which others are at the job. */
function take([happening, at, screen, others]: string[]): Said {
  const said = given.metronixBench.take(happening!, at!)
  return said.why || said.refused ? said : state(at!, screen!, others!)
}

addEventListener('message', async ({ data }: MessageEvent<Asked>) => {
  const [a, b] = data.args as [string, string]
  let said: Said
  try {
    if (data.what === 'start') said = await start(a, b)
    else if (data.what === 'open') {
      said = given.metronixBench.open(a)
      if (!said.why) setTimeout(warmUp, pause)
    } else if (data.what === 'state') said = state(a, b, data.args[2]!)
    else said = take(data.args)
  } catch (e) {
    said = { why: String(e) }
  }
  postMessage({ n: data.n, said })
})
