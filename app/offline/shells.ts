/**
 * Shells: the HTML that the server gives for a view before the browser fills it from its own store. It is the same for
 * every site, so one of each view, kept by the service worker, opens them all without a network.
 */

/** The site of which shells are asked for; no site's id is a word. */
const ANY_SITE = 'any'

/** A route of the application, as the build's manifest lists it. */
export interface BuiltRoute {
  id: string
  parentId?: string
  path?: string
  /** Whether it draws something; a service's route does not. */
  hasDefaultExport: boolean
}

/** The addresses of all shells; what the server alone can answer, such as a page that does not exist, has none. */
export function shellAddresses(routes: readonly BuiltRoute[]): string[] {
  const parents = new Set(routes.map((route) => route.parentId))
  const byId = new Map(routes.map((route) => [route.id, route]))
  const pathOf = (route: BuiltRoute | undefined): string =>
    route ? `${pathOf(byId.get(route.parentId ?? ''))}${route.path ? `/${route.path}` : ''}` : ''
  return routes
    .filter((route) => route.hasDefaultExport && !parents.has(route.id) && route.path !== '*')
    .map((route) => pathOf(route).replace(':siteId', ANY_SITE) || '/')
}

/** The shell that opens an address of the application; null where only the server can. */
export function shellOf(pathname: string, shells: ReadonlySet<string>): string | null {
  const bare = pathname.replace(/\/$/, '') || '/'
  const shell = bare.replace(/^\/sites\/[^/]+/, `/sites/${ANY_SITE}`)
  return shells.has(shell) ? shell : null
}
