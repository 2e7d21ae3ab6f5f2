/** Results for a phrase, asked for the browser: the service's address and its failures stay on the server. */
import { addressOfService } from '../../server/services/ask.ts'
import { resultsQuestionSchema } from '../../core/keywords/results-question.ts'
import { askResults, resultsService } from '../../server/services/results.ts'
import type { Route } from './+types/results'

/** Whether results can be looked up here at all. */
export const loader = () => Response.json({ off: addressOfService(resultsService) === 'off' })

export async function action({ request }: Route.ActionArgs) {
  const { value, error } = resultsQuestionSchema.validate(await request.json().catch(() => null))
  if (error) return Response.json({ ok: false, off: false, why: error.message })
  return Response.json(await askResults(value, request.signal))
}
