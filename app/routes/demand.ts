/** Demand for phrases, asked for the browser: the service's address and its failures stay on the server. */
import { demandQuestionSchema } from '../../core/keywords/demand.ts'
import { askDemand } from '../../server/services/demand.ts'
import type { Route } from './+types/demand'

export async function action({ request }: Route.ActionArgs) {
  const { value, error } = demandQuestionSchema.validate(await request.json().catch(() => null))
  if (error) return Response.json({ ok: false, off: false, why: error.message })
  return Response.json(await askDemand(value, request.signal))
}
