import { answered, api } from './client'

/** One computation of the core, by its name. */
export function compute<Answer>(operation: string, request: unknown): Promise<Answer> {
  return answered(
    api.POST('/api/v1/compute/{operation}', {
      params: { path: { operation } },
      body: request as never,
    }),
  ) as Promise<Answer>
}
