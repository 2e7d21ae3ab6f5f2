/** What the Data sheet shows of a page: its things as an editor reads them, what results can use, what it can be built as. */
import { draftOf, type Decisions } from '../../core/work/decisions.ts'
import type { Edit, TargetKey } from '../../core/page/edits/draft.ts'
import type { PageFacts } from '../../core/page/read/facts.ts'
import { lineAndColumn, lineStarts } from '../../core/page/source/places.ts'
import { readPage } from '../../core/page/read/read-page.ts'
import { sourceOf } from '../../core/page/source/source.ts'
import { blockKeys, placeName } from '../../core/rules/resolve.ts'
import { build, offersOf, type BuildKind, type Offer } from '../../core/structured-data/build.ts'
import { pretty } from '../../core/json/edit-json.ts'
import { askedOf, featuresOf, type Addition } from '../../core/structured-data/features.ts'
import { lackInWords } from '../../core/structured-data/words.ts'
import { linksOf } from '../../core/structured-data/follow.ts'
import { pointerAt } from '../../core/json/json.ts'
import { dataOf } from '../../core/structured-data/read.ts'
import { siteSideOf } from '../../core/site/site-side.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import type { Reading } from '../../core/work/evaluate.ts'
import { siteNameOf } from '../../core/work/setting.ts'
import { thingView, type FoundAt, type ThingView } from './data-fields.ts'
import { readingFor } from './open-site.ts'

export interface FeatureView {
  id: string
  name: string
  pointer: string
  eligible: boolean
  missing: string[]
  recommended: string[]
  adds: Addition[]
  retired: string | null
}
export interface BlockView {
  key: TargetKey
  line: number
  start: number
  json: string
  jsonStart: number
  error: { message: string; line: number; column: number } | null
  /** No context that is schema.org's: listed and left alone. */
  foreign: boolean
  things: ThingView[]
  features: FeatureView[]
  /** What it was built as from the page. */
  built: string | null
}
export interface SiteThingView {
  id: string
  name: string
  types: string[]
}
export interface DataView {
  blocks: BlockView[]
  inline: { microdata: boolean; rdfa: boolean }
  offers: Offer[]
  /** Things of the site that can be pointed to. */
  siteThings: SiteThingView[]
  images: string[]
  url: string
}

export const sideOf = ({ setting, page }: Reading) => siteSideOf(page, setting.index, siteNameOf(setting))
export const languageOf = ({ setting }: Reading) => setting.style.language ?? 'en'

export async function dataView(id: PageId, decisions: Decisions): Promise<DataView | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { setting, proof, page } = reading
  const { text } = proof.source
  const data = dataOf(page)
  const starts = lineStarts(text)
  const draft = draftOf(decisions)
  const states = new Map<number, ReturnType<typeof featuresOf>>()
  for (const state of featuresOf(data)) {
    const ofBlock = states.get(state.thing.block)
    if (ofBlock) ofBlock.push(state)
    else states.set(state.thing.block, [state])
  }
  const keys = blockKeys(
    proof,
    Array.from(page.data, (block) => block.start),
  )
  const ids = new Map<string, SiteThingView>()
  for (const id of setting.index.withThings)
    for (const t of setting.index.entries.get(id)!.things!.things)
      if (t.id !== null && !t.id.startsWith('_:') && t.name !== null && !ids.has(t.id))
        ids.set(t.id, { id: t.id, name: t.name, types: t.types })
  return {
    blocks: page.data.map((block, i): BlockView => {
      const { json, error, roots, unknown } = data.blocks[i]!
      const key = keys[i]!
      const edit: Edit | undefined = draft[key]
      const pointer = (start: number) => (json ? pointerAt(json, start - block.jsonStart) : '')
      const foundAt = foundValues(reading, edit, text, starts)
      return {
        key,
        line: lineAndColumn(starts, block.start).line,
        start: block.start,
        json: block.json,
        jsonStart: block.jsonStart,
        error: error
          ? { message: error.message, ...lineAndColumn(lineStarts(block.json), error.at - block.jsonStart) }
          : null,
        foreign: !error && unknown.length > 0 && roots.length === 0,
        things: roots.map((t) => thingView(t, data, pointer, foundAt, new Set())),
        features: (states.get(i) ?? []).map(({ feature, thing, eligible, missing, recommended }) => ({
          id: feature.id,
          name: feature.name,
          pointer: pointer(thing.start),
          eligible,
          missing: missing.map((l) => lackInWords(l.path)),
          recommended: recommended.map((l) => lackInWords(l.path)),
          adds: feature.adds,
          retired: feature.retired ? `${feature.retired.now} Since ${feature.retired.since}.` : null,
        })),
        built: edit?.built?.kind ?? null,
      }
    }),
    inline: page.inline,
    offers: offersOf(page, text, sideOf(reading), languageOf(reading)),
    siteThings: [...ids.values()].sort((a, b) => (a.name < b.name ? -1 : 1)).slice(0, 300),
    images: [
      ...new Set(
        page.images.flatMap((m) => (m.src === '' || m.src.startsWith('data:') ? [] : [resolve(m.src, page)])),
      ),
    ],
    url: page.url,
  }
}
const resolve = (src: string, page: PageFacts): string => {
  try {
    return new URL(src, page.base === null ? page.url : new URL(page.base, page.url)).href
  } catch {
    return src
  }
}

/** Where the values of a block that was built stand on the page now. */
function foundValues(reading: Reading, edit: Edit | undefined, text: string, starts: number[]): FoundAt {
  if (!edit?.built) return () => null
  const built = build(edit.built.kind as BuildKind, reading.page, text, sideOf(reading), languageOf(reading))
  const byLink = new Map(
    Object.entries(linksOf(built, (start) => placeName(reading.proof, start)).links).map(
      ([pointer, link]) => [link, built.found.find((f) => f.pointer === pointer)!],
    ),
  )
  return (pointer) => {
    const link = edit.built!.links[pointer]
    const source = link === undefined ? undefined : byLink.get(link)
    return source
      ? {
          what: source.what,
          start: source.start,
          line: source.start === null ? null : lineAndColumn(starts, source.start).line,
        }
      : null
  }
}

/** A block built from the page as its draft leaves it: JSON, and what of it follows the page. */
export async function buildData(
  id: PageId,
  decisions: Decisions,
  kind: BuildKind,
): Promise<{ value: string; built: NonNullable<Edit['built']>; open: string[] } | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { proof, page } = reading
  const built = build(kind, page, proof.source.text, sideOf(reading), languageOf(reading))
  const asked = askedOf([String(built.data['@type'])], null)
  return {
    value: pretty(built.data),
    built: linksOf(built, (start) => placeName(proof, start)),
    open: asked.flatMap((a) => (a.anyOf.some((p) => built.data[p] !== undefined) ? [] : [a.anyOf[0]!])),
  }
}

/** What the page's microdata and RDFa describe, and the same as one JSON-LD text; null where nothing could be read. */
export async function inlineData(
  id: PageId,
  decisions: Decisions,
): Promise<{ microdata: ThingView[]; rdfa: ThingView[]; json: string } | null> {
  const reading = await readingFor(id, decisions)
  if (!reading) return null
  const { page, proof } = reading
  if (!page.inline.microdata && !page.inline.rdfa) return null
  const { inlineThings } = await import('../../core/structured-data/inline.ts')
  const inline = await inlineThings(proof.source.text, page.url, page.inline)
  const viewsOf = (things: Record<string, unknown>[]): ThingView[] => {
    const json = JSON.stringify({ '@context': 'https://schema.org', '@graph': things })
    const blank = readPage(sourceOf(new Uint8Array(), 'utf-8', 'bom', 0), { path: page.path, url: page.url })
    blank.data.push({ json, jsonStart: 0, start: 0, end: 0 })
    const data = dataOf(blank)
    return data.roots.map((t) =>
      thingView(
        t,
        data,
        () => '',
        () => null,
        new Set(),
      ),
    )
  }
  const all = [...inline.microdata, ...inline.rdfa]
  return {
    microdata: viewsOf(inline.microdata),
    rdfa: viewsOf(inline.rdfa),
    json: pretty(
      all.length === 1
        ? { '@context': 'https://schema.org', ...all[0] }
        : { '@context': 'https://schema.org', '@graph': all },
    ),
  }
}
