/** The bench as WebAssembly: where it is fetched, and the hash it must have; empty where there is none. */
declare module 'virtual:bench-module' {
  export const benchModule: { url: string; integrity: string }
}
declare module '*/gen/wasm_exec.js'
