/** How a site does in results, asked for the browser: the service's address and its failures stay on the server. */
import { addressOfService } from '../../server/services/ask.ts'
import {
  askStatistics,
  statisticsQuestionSchema,
  statisticsService,
} from '../../server/services/statistics.ts'
import type { Route } from './+types/statistics'

/** Whether statistics can be had here at all. */
export const loader = () => Response.json({ off: addressOfService(statisticsService) === 'off' })

export async function action({ request }: Route.ActionArgs) {
  const { value, error } = statisticsQuestionSchema.validate(await request.json().catch(() => null))
  if (error) return Response.json({ ok: false, off: false, why: error.message })
  return Response.json(await askStatistics(value, new Date(), request.signal))
}
