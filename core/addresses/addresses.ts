/** Paths of a site's files and the addresses they have. */

/** A page by its name: `.html`, `.htm`, `.xhtml`, or with a language tag behind as in `index.html.de`. */
export const isPagePath = (path: string): boolean =>
  /\.(?:html?|xhtml)(?:\.[a-z]{2,3}(?:-[a-z0-9]{2,8})*)?$/i.test(path)

const indexName = /(^|\/)index\.(?:html?|xhtml)$/i

/** RFC 3986 pchar and what must be escaped besides: `%`, `?`, `#` of a file's name, and all that is not ASCII. */
const encodeSegment = (segment: string) =>
  encodeURIComponent(segment).replace(/%(?:21|24|26|27|28|29|2A|2B|2C|3B|3D|3A|40)/g, (e) =>
    decodeURIComponent(e),
  )

/** The address of a path under a base: `a/index.html` → `…/a/`, `a/b.html` → `…/a/b.html`. The base ends in `/`. */
export function addressOf(path: string, base: string): string {
  const shown = path.replace(indexName, '$1')
  return base + shown.toWellFormed().split('/').map(encodeSegment).join('/')
}

/** A base address as pages use it: http or https, without query and fragment, ending in `/`; null for anything else. */
export function normaliseBase(typed: string): string | null {
  const trimmed = typed.trim()
  if (trimmed === '') return null
  try {
    const url = new URL(/^[a-z][a-z0-9+.-]*:/i.test(trimmed) ? trimmed : `https://${trimmed}`)
    if (url.protocol !== 'http:' && url.protocol !== 'https:') return null
    url.search = ''
    url.hash = ''
    if (!url.pathname.endsWith('/')) url.pathname += '/'
    url.pathname = normalPath(url.pathname)
    return url.href
  } catch {
    return null
  }
}

/** The path part of an address, decoded where it can be. */
export function decodedPath(url: string): string {
  const { pathname } = new URL(url)
  try {
    return decodeURIComponent(pathname)
  } catch {
    return pathname
  }
}

/** An address against a base; null where it is no URL. */
export function resolveAddress(href: string, base: string): string | null {
  try {
    return new URL(href, base).href
  } catch {
    return null
  }
}

/** Whether an address as it is written is a full URL: absolute, with http or https. */
export const isWebAddress = (href: string): boolean => /^https?:\/\//i.test(href) && URL.canParse(href)

/** An address as results show it: the host and the segments, decoded. */
export const shownAddress = (url: string): string[] => [
  new URL(url).host,
  ...decodedPath(url).split('/').filter(Boolean),
]

/** What an address is compared by: without fragment and query. */
export function withoutQuery(url: string): string {
  const fragment = url.indexOf('#')
  const plain = fragment < 0 ? url : url.slice(0, fragment)
  const query = plain.indexOf('?')
  return query < 0 ? plain : plain.slice(0, query)
}

/** What may stand in a path as it is: pchar and the slash (RFC 3986, 3.3). */
const plainInPath = /[A-Za-z0-9\-._~!$&'()*+,;=:@/]/
/** An address without query and fragment whose path holds nothing to be spelt another way. */
const isOwnKey = /^https?:\/\/[^/?#]*(?:\/[A-Za-z0-9\-._~!$&'()*+,;=:@/]*)?$/
const needsNormalising = /[^A-Za-z0-9\-._~!$&'()*+,;=:@/]/

/**
 * A path spelt the one way that stands for all: percent-encoded only what must be, in capitals (RFC 3986, 6.2.2). The
 * slash, the question mark and their like keep their code, for without it they would be read as what they are not.
 */
function normalPath(path: string): string {
  if (!needsNormalising.test(path)) return path
  return path.replace(
    /%([0-9a-f]{2})|[^A-Za-z0-9\-._~!$&'()*+,;=:@/]/giu,
    (written: string, hex?: string) => {
      if (hex === undefined) return encodeURIComponent(written.toWellFormed())
      const c = String.fromCharCode(parseInt(hex, 16))
      return c !== '/' && plainInPath.test(c) ? c : `%${hex.toUpperCase()}`
    },
  )
}

/** What an address is known by: without query and fragment, its path spelt the one way that stands for all. */
export function addressKey(url: string): string {
  const plain = withoutQuery(url)
  if (isOwnKey.test(plain)) return plain
  const pathStart = /^[a-z][a-z0-9+.-]*:\/\/[^/]*/i.exec(plain)?.[0].length ?? 0
  return plain.slice(0, pathStart) + normalPath(plain.slice(pathStart))
}

/** What an address with its query is known by. */
export const queryKey = (url: string): string => addressKey(url) + (/\?[^#]+/.exec(url)?.[0] ?? '')

/** Whether two addresses are one, however they are spelt; their queries count, their fragments do not. */
export const sameAddress = (a: string, b: string): boolean => a === b || queryKey(a) === queryKey(b)

/** Every address under which a path answers: its own, the folder's without slash, the index by its name, a language's page without its tag. */
export function addressesOf(path: string, base: string): string[] {
  const usual = addressOf(path, base)
  const all = [usual]
  if (indexName.test(path)) {
    if (usual !== base) all.push(usual.slice(0, -1))
    all.push(base + path.toWellFormed().split('/').map(encodeSegment).join('/'))
  }
  const tagged = /^(.*\.(?:html?|xhtml))\.[a-z]{2,3}(?:-[a-z0-9]{2,8})*$/i.exec(path)
  if (tagged) all.push(...addressesOf(tagged[1]!, base))
  return all
}

/** Two addresses that differ only in case or in a slash at the end are one to a reader. */
export function collisionKey(url: string): string {
  const key = addressKey(url)
  let end = key.length
  while (end > 0 && key[end - 1] === '/') end--
  return key.slice(0, end).toLowerCase()
}

/**
 * Every address of the files named, by id and path. Where two share one, the file whose own it is has it, then
 * `index.html`, else the first.
 */
export function addressBook(base: string, files: Iterable<readonly [string, string]>): Map<string, string> {
  const addresses = new Map<string, string>()
  const bare: (readonly [string, string])[] = []
  for (const [id, path] of files) {
    const usual = /(?:^|\/)index\.html$/i.test(path)
    for (const address of addressesOf(path, base).map(addressKey))
      if (usual || !addresses.has(address)) addresses.set(address, id)
    // A page at `/about` is another than the one at `/about/`.
    if (!/\.[^/]*$|(?:^|\/)$/.test(path)) bare.push([id, path])
  }
  for (const [id, path] of bare) addresses.set(addressKey(addressOf(path, base)), id)
  return addresses
}
