/** Demand for phrases, asked for the browser: the service's address and its failures stay on the server. */
import { demandQuestionSchema } from '../../core/keywords/demand.ts'
import { addressOfService } from '../../server/services/ask.ts'
import { askDemand, demandService } from '../../server/services/demand.ts'
import type { Route } from './+types/demand'

/** Whether phrases can be looked up here at all. */
export const loader = () => Response.json({ off: addressOfService(demandService) === 'off' })

export async function action({ request }: Route.ActionArgs) {
  const { value, error } = demandQuestionSchema.validate(await request.json().catch(() => null))
  if (error) return Response.json({ ok: false, off: false, why: error.message })
  return Response.json(await askDemand(value, request.signal))
}
