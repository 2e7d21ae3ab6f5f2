/** One address fetched for the browser, which holds the plan and the progress; politeness and robots.txt are held to here. */
import Joi from 'joi'
import { writeFetched } from '../../core/exchange/fetched-message.ts'
import { fetcherFor } from '../../server/fetchers.ts'
import type { Route } from './+types/fetching'

const schema = Joi.object<{ address: string; as: 'page' | 'robots' | 'sitemap'; web: 'first' | 'second' }>({
  address: Joi.string().max(10_000).required(),
  as: Joi.valid('page', 'robots', 'sitemap').required(),
  web: Joi.valid('first', 'second').required(),
})

export async function action({ request }: Route.ActionArgs) {
  const { value, error } = schema.validate(await request.json().catch(() => null))
  if (error) return new Response(error.message, { status: 400 })
  const fetched = await fetcherFor(value.web).fetch(value.address, value.as, request.signal)
  return new Response(writeFetched(fetched), { headers: { 'content-type': 'application/octet-stream' } })
}
