import { index, route, type RouteConfig } from '@react-router/dev/routes'

export default [
  index('routes/shelf.tsx'),
  route('sites/:siteId', 'routes/site.tsx', [
    index('routes/site-index.tsx'),
    route('ledger', 'routes/ledger.tsx'),
    route('keywords', 'routes/keywords.tsx'),
    route('desk', 'routes/desk.tsx'),
    route('structured-data', 'routes/structured-data.tsx'),
    route('templates', 'routes/templates.tsx'),
    route('house-style', 'routes/house-style.tsx'),
    route('suggestions', 'routes/suggestions.tsx'),
    route('taken-again', 'routes/taken-again.tsx'),
    route('review', 'routes/review.tsx'),
    route('hand-off', 'routes/hand-off.tsx'),
    route('progress', 'routes/progress.tsx'),
  ]),
  route('intake', 'routes/intake.tsx'),
  route('fetching', 'routes/fetching.ts'),
  route('demand', 'routes/demand.ts'),
  route('results', 'routes/results.ts'),
  route('statistics', 'routes/statistics.ts'),
  route('about', 'routes/about.tsx'),
  route('*', 'routes/not-found.tsx'),
] satisfies RouteConfig
