import type { paths } from './schema.gen'
import { answered, api } from './client'

type Prefix = '/api/v1/compute/'
/** The name of a computation. */
export type Operation = keyof paths extends infer P ? (P extends `${Prefix}${infer Name}` ? Name : never) : never
type Body<O extends Operation> = paths[`${Prefix}${O}`]['post']['requestBody']['content']['application/json']
/** What a computation answers. */
export type Answers<O extends Operation> =
  paths[`${Prefix}${O}`]['post']['responses'][200]['content']['application/json']

/** One computation of the core, by its name. */
export function compute<O extends Operation>(operation: O, request: Body<O>): Promise<Answers<O>> {
  return ask(operation, request) as Promise<Answers<O>>
}

/** One computation whose request was put together from what was typed: the program says what is wrong with it. */
export function ask(operation: Operation, request: unknown): Promise<unknown> {
  const call = api.POST as (path: string, options: { body: unknown }) => Promise<{ data?: unknown; error?: unknown }>
  return answered(call(`/api/v1/compute/${operation}`, { body: request }))
}
