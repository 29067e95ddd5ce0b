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

/** Takes a happening and says the state after it, as a screen shows it beside which others are at the job. */
function take([happening, at, screen, others]: string[]): Said {
  const said = given.metronixBench.take(happening!, at!)
  return said.why || said.refused ? said : given.metronixBench.state(at!, screen!, JSON.parse(others!) as string[])
}

addEventListener('message', async ({ data }: MessageEvent<Asked>) => {
  const [a, b] = data.args as [string, string]
  let said: Said
  try {
    if (data.what === 'start') said = await start(a, b)
    else if (data.what === 'open') said = given.metronixBench.open(a)
    else said = take(data.args)
  } catch (e) {
    said = { why: String(e) }
  }
  postMessage({ n: data.n, said })
})
