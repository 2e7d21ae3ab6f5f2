import type { LeftOutBy } from '../../core/site/intake-plan.ts'

/** Why an address is left out, as it stands behind it. */
export const leftOutNames: Record<LeftOutBy, string> = {
  'no address': 'not an address',
  'another site': 'on another site',
  outside: 'outside the path',
  robots: 'robots.txt asks not to fetch it',
  'not a page': 'not a page',
  query: 'has a query',
  pattern: 'left out by you',
  limit: 'over the limit',
}
