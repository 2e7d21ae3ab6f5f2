/** How a page looks and what it weighs: the page to look at, its own files by kind, its images and their places. */
import { addressKey, resolveAddress } from '../../core/addresses/addresses.ts'
import { START, stillPage } from '../../core/page/still/still-page.ts'
import { lineAndColumn, lineStarts } from '../../core/page/source/places.ts'
import type { PageFacts } from '../../core/page/read/facts.ts'
import {
  chosenSource,
  oversizeOf,
  resourcesOf,
  type Oversize,
  type Resource,
} from '../../core/site/page-weight.ts'
import { idAt, type SiteIndex } from '../../core/site/site-index.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Decisions } from '../../core/work/decisions.ts'
import { db } from '../store/db.ts'
import { current, readingFor } from './open-site.ts'

export { START }

export type WeightKind = 'page' | 'style' | 'script' | 'image' | 'font'
/** The files of one kind; `absent` ones are not of the site, and `blocking` ones are waited for before anything is drawn. */
export interface KindWeight {
  kind: WeightKind
  files: number
  bytes: number
  absent: number
  blocking: { named: string; bytes: number | null; start: number }[]
}
export interface WeighedImage {
  named: string
  start: number
  line: number
  bytes: number
  pixels: { width: number; height: number } | null
  oversize: Oversize | null
}
export interface PhoneView {
  html: string
  fitsScreen: boolean
  /** How many files are not of the site, so that the page may look otherwise than here. */
  absent: number
  left: string[]
  weights: KindWeight[]
  total: number
  images: WeighedImage[]
  /** Lines of the proof by where they start, for what the layout is found to say. */
  lineStarts: number[]
}

/** Null for what is no page of the site. */
export async function phoneOf(id: PageId, decisions: Decisions): Promise<PhoneView | null> {
  const reading = await readingFor(id, decisions)
  if (!reading || !current) return null
  const { page, proof, setting } = reading
  const { site } = current
  const { index } = setting
  const still = await stillPage(proof.source, page.url, async (url) => {
    const target = idAt(index, url)
    const file = target === undefined ? undefined : await db.files.get([site.id, target])
    return file
      ? { path: file.path, bytes: file.bytes, image: index.sizes.get(file.path)?.image ?? null }
      : null
  })
  const starts = lineStarts(proof.source.text)
  const resources = resourcesOf(page, index)
  const weights = weigh(page, resources, still.inSheets, index)
  return {
    html: still.html,
    fitsScreen: still.fitsScreen,
    absent: weights.reduce((n, w) => n + w.absent, 0),
    left: still.left,
    weights,
    total: weights.reduce((n, w) => n + w.bytes, 0),
    images: imagesOf(page, resources, index, starts),
    lineStarts: starts,
  }
}

function weigh(
  page: PageFacts,
  resources: readonly Resource[],
  inSheets: readonly { url: string; kind: 'image' | 'font' }[],
  index: SiteIndex,
): KindWeight[] {
  const weights = new Map(
    (['page', 'style', 'script', 'image', 'font'] as const).map((kind): [WeightKind, KindWeight] => [
      kind,
      { kind, files: 0, bytes: 0, absent: 0, blocking: [] },
    ]),
  )
  const itself = weights.get('page')!
  itself.files = 1
  itself.bytes = page.bytes
  const seen = new Set<string>()
  const add = (kind: WeightKind, url: string | null, bytes: number | null) => {
    if (url !== null && seen.has(addressKey(url))) return
    if (url !== null) seen.add(addressKey(url))
    const weight = weights.get(kind)!
    if (bytes === null) weight.absent++
    else {
      weight.files++
      weight.bytes += bytes
    }
  }
  for (const { kind, url, size, blocks, named, start } of resources) {
    add(kind, url, size?.bytes ?? null)
    if (blocks) weights.get(kind)!.blocking.push({ named, bytes: size?.bytes ?? null, start })
  }
  for (const { url, kind } of inSheets) {
    const id = idAt(index, url)
    add(kind, url, (id === undefined ? undefined : index.sizes.get(id)?.bytes) ?? null)
  }
  return [...weights.values()]
}

/** The images that the site has, the heaviest first. */
function imagesOf(
  page: PageFacts,
  resources: readonly Resource[],
  index: SiteIndex,
  starts: number[],
): WeighedImage[] {
  const from = resolveAddress(page.base ?? '', page.url) ?? page.url
  const byUrl = new Map(resources.map((resource) => [resource.url, resource]))
  const images = new Map<string, WeighedImage>()
  for (const image of page.images) {
    const named = chosenSource(image)
    const url = named === '' ? null : resolveAddress(named, from)
    const size = url === null ? null : byUrl.get(url)?.size
    if (!url || !size || images.has(url)) continue
    images.set(url, {
      named,
      start: image.start,
      line: lineAndColumn(starts, image.start).line,
      bytes: size.bytes,
      pixels: size.image,
      oversize: oversizeOf(image, size),
    })
  }
  return [...images.values()].sort((a, b) => b.bytes - a.bytes)
}
