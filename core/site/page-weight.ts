/** What a page weighs with its own files, as far as the site has them, and how large its images are for their places. */
import { resolveAddress } from '../addresses/addresses.ts'
import type { ImageFact, PageFacts, Place } from '../page/read/facts.ts'
import { isForScreens, isStyleSheet } from '../page/read/collect/resources.ts'
import type { FileSize } from './file-sizes.ts'
import type { PageId } from './page-identity.ts'
import { idAt, type SiteIndex } from './site-index.ts'

export type ResourceKind = 'style' | 'script' | 'image'

/** A file that a page loads, once however often it is named. */
export interface Resource extends Place {
  kind: ResourceKind
  /** As the page names it. */
  named: string
  url: string | null
  /** The site's file; null where the site does not have it. */
  id: PageId | null
  size: FileSize | null
  /** Whether nothing is drawn before it is there: a style sheet for screens, or a script of the head that is not put off. */
  blocks: boolean
}

/** Bytes by kind; `absent` files are not of the site, or were not taken in, and weigh what nobody knows here. */
export interface PageWeight {
  page: number
  style: number
  script: number
  image: number
  total: number
  absent: number
}

/** What was found of a page, while the site's files and their addresses stand: several rules ask for it. */
const known = new WeakMap<PageFacts, Pick<SiteIndex, 'addresses' | 'sizes'> & { resources: Resource[] }>()

/** The files that a page loads by its own tags, in its order. Data within addresses is part of the page. */
export function resourcesOf(page: PageFacts, site: SiteIndex): readonly Resource[] {
  const before = known.get(page)
  if (before?.addresses === site.addresses && before.sizes === site.sizes) return before.resources
  const resources = findResources(page, site)
  known.set(page, { addresses: site.addresses, sizes: site.sizes, resources })
  return resources
}

function findResources(page: PageFacts, site: SiteIndex): Resource[] {
  const resources = new Map<string, Resource>()
  const from = resolveAddress(page.base ?? '', page.url) ?? page.url
  const add = (kind: ResourceKind, named: string, url: string | null, blocks: boolean, place: Place) => {
    if (named === '' || /^(?:data|blob|javascript):/i.test(named)) return
    const key = `${kind} ${url ?? named}`
    const known = resources.get(key)
    if (known) {
      known.blocks ||= blocks
      return
    }
    const id = (url === null ? undefined : idAt(site, url)) ?? null
    const size = (id === null ? undefined : site.sizes.get(id)) ?? null
    const { start, end } = place
    resources.set(key, { kind, named, url, id: size && id, size, blocks, start, end })
  }
  for (const link of page.rels)
    if (isStyleSheet(link.rel)) add('style', link.href, link.url, isForScreens(link.media), link)
  for (const script of page.scripts) add('script', script.src, script.url, script.blocks, script)
  for (const image of page.images) {
    const chosen = chosenSource(image)
    add('image', chosen, resolveAddress(chosen, from), false, image)
  }
  return [...resources.values()]
}

export function weightOf(page: PageFacts, site: SiteIndex): PageWeight {
  const weight: PageWeight = { page: page.bytes, style: 0, script: 0, image: 0, total: page.bytes, absent: 0 }
  for (const { kind, size } of resourcesOf(page, site)) {
    if (size) {
      weight[kind] += size.bytes
      weight.total += size.bytes
    } else weight.absent++
  }
  return weight
}

/** The window for which a share of it counts as the place of an image, in px: the desk's home size. */
const WINDOW = 1280

/** How wide an image is shown, in px, as far as its tag says; null where it does not. */
export function shownWidth(image: ImageFact): number | null {
  if (image.width !== null) return image.width
  let widest: number | null = null
  for (const part of image.sizes.split(',')) {
    // The length stands after the condition, which may have parentheses and spaces of its own.
    const read = /(?:^|[\s)])(\d{1,5}(?:\.\d{1,4})?)(px|vw)\s*$/i.exec(part)
    if (!read) return null
    const px = read[2]!.toLowerCase() === 'px' ? Number(read[1]) : (Number(read[1]) * WINDOW) / 100
    widest = Math.max(widest ?? 0, px)
  }
  return widest
}

/** The address that a browser loads on a screen of usual density: of several, the narrowest that fills the place. */
export function chosenSource(image: ImageFact): string {
  if (image.srcset === '') return image.src
  const offered = candidatesOf(image.srcset)
  const place = shownWidth({ ...image, width: null }) ?? WINDOW
  const byWidth = offered.filter((c) => c.unit === 'w').sort((a, b) => a.figure - b.figure)
  if (byWidth.length > 0)
    return (byWidth.find((c) => c.figure >= place) ?? byWidth[byWidth.length - 1]!).address
  return image.src || (offered.find((c) => c.figure === 1) ?? offered[0])?.address || ''
}

/** More are not read: no page offers so many. */
const MOST_CANDIDATES = 50

/** Addresses of a srcset with what each is for. Source: WHATWG HTML 4.8.4.2, srcset attributes; commas within addresses are theirs. */
export function candidatesOf(srcset: string): { address: string; figure: number; unit: 'w' | 'x' }[] {
  const candidates: { address: string; figure: number; unit: 'w' | 'x' }[] = []
  const words = srcset.trim().split(/\s+/)
  for (let i = 0; i < words.length && candidates.length < MOST_CANDIDATES; i++) {
    const word = words[i]!.replace(/^,+/, '')
    if (word === '') continue
    const address = word.replace(/,+$/, '')
    const next = word === address ? /^(\d{1,6}(?:\.\d{1,4})?)([wx]),?$/.exec(words[i + 1] ?? '') : null
    if (next) i++
    candidates.push({ address, figure: next ? Number(next[1]) : 1, unit: next?.[2] === 'w' ? 'w' : 'x' })
  }
  return candidates
}

/** Screens with two pixels to one are common: up to so many times its place an image is not too large. Common practice, no source. */
const DENSITY = 2

/** What a smaller copy of an image would save. */
export interface Oversize {
  /** In px: the file's width, its place's, and what would do. */
  natural: number
  place: number
  enough: number
  /** Bytes, estimated by the share of pixels. */
  saved: number
}

/** How much too large a file is for the place of an image; null where it is not, or nobody can say. */
export function oversizeOf(image: ImageFact, size: FileSize): Oversize | null {
  const place = shownWidth(image)
  if (place === null || place < 1 || size.image === null) return null
  const enough = Math.round(place * DENSITY)
  const natural = size.image.width
  if (natural <= enough) return null
  return {
    natural,
    place: Math.round(place),
    enough,
    saved: Math.round(size.bytes * (1 - (enough / natural) ** 2)),
  }
}
