/**
 * Redirects as two web servers take them: a `.htaccess` with mod_rewrite, and a `map` for the configuration. Sources: the
 * documentation of Apache httpd's `RewriteRule` and of nginx's `map`, from memory; `npm run check-real servers` asks both
 * servers themselves, of Debian's packages, for every old address.
 */
import { decodedPath } from '../addresses/addresses.ts'
import type { Redirect } from '../site/moves.ts'

/** Redirects of addresses with a query: neither form compares queries. */
const hasQuery = ({ from }: Redirect) => from.includes('?')

/** Servers compare the path after decoding it. */
const pathOf = ({ from }: Redirect) => decodedPath(from)

const escapePattern = (text: string) => text.replace(/[\\^$.|?*+()[\]{}]/g, '\\$&')
/** Within double quotes. */
const quoted = (text: string) => text.replace(/["\\]/g, '\\$&')
/** A line break cannot stand in a line of configuration; no address that is written by the book has one. */
const isOneLine = ({ from, to }: Redirect) => !/[\r\n]/.test(decodedPath(from) + to)

const leftOut = (redirects: readonly Redirect[]) =>
  redirects
    .filter((r) => hasQuery(r) || !isOneLine(r))
    .map(({ from }) => `# Not written, it has a query: ${from.replace(/[\r\n]/g, ' ')}\n`)
const written = (redirects: readonly Redirect[]) => redirects.filter((r) => !hasQuery(r) && isOneLine(r))

/**
 * For the site's root folder; needs mod_rewrite, whose rules there see a path without its first slash. NE: the target is
 * encoded already (the rules of mod_alias would encode it once more). Its quotes know no escape: a quote is
 * written by its number.
 */
export const writeHtaccess = (redirects: readonly Redirect[]): string =>
  [
    ...(written(redirects).length > 0 ? ['RewriteEngine On\n'] : []),
    ...written(redirects).map((r) => {
      const target = r.to.replace(/[\\$%]/g, '\\$&')
      const path = escapePattern(pathOf(r).slice(1)).replaceAll('"', '\\x22')
      return `RewriteRule "^${path}$" "${target}" [R=${status(r)},L,NE]\n`
    }),
    ...leftOut(redirects),
  ].join('')

/** For the `http` part of the configuration; how the `server` part uses it stands in its first lines. */
export const writeNginxMap = (redirects: readonly Redirect[]): string =>
  [
    '# In the server part of the site:\n#   if ($page_moved_to) { return 301 $page_moved_to; }\n',
    'map $uri $page_moved_to {\n    default "";\n',
    ...written(redirects).map(
      (r) => `    "~^${quoted(escapePattern(pathOf(r)))}$" "${quoted(r.to.replaceAll('$', '%24'))}";\n`,
    ),
    '}\n',
    ...leftOut(redirects),
  ].join('')

const status = ({ status: given }: Redirect) => (/^30[1278]$/.test(given) ? given : '301')
