/** A page that is being read: its facts so far, and what the collectors share. */
import { resolveAddress } from '../../addresses/addresses.ts'
import { resolverFor } from '../../addresses/resolver.ts'
import { isUtf8 } from '../source/encoding.ts'
import type { Source } from '../source/source.ts'
import type { PageFacts, Place } from './facts.ts'
import type { Candidates } from './main-content.ts'
import type { Element, Parsed } from './parse.ts'
import { RunningText } from './running-text.ts'

/** Where a page was taken in, its address, and what the house says of where its main content stands. */
export interface Where {
  path: string
  url: string
  main?: string | null
}

export interface Reading {
  source: Source
  where: Where
  page: PageFacts
  text: RunningText
  /** The absolute address of an href, against the page's base; null where it is none. */
  resolve: (href: string) => string | null
  candidates: Candidates
}

export function beginReading(source: Source, where: Where, parsed: Parsed): Reading {
  const page: PageFacts = {
    beyond: parsed.beyond,
    path: where.path,
    url: where.url,
    served: source.served,
    length: source.text.length,
    bytes: source.bytes.length,
    doctype: parsed.document.childNodes.some((n) => n.nodeName === '#documentType'),
    charset: {
      encoding: source.encoding,
      by: source.encodingBy,
      utf8: source.encoding === 'utf-8' || isUtf8(source.bytes),
      late: null,
    },
    html: null,
    lang: null,
    base: null,
    titles: [],
    metas: [],
    canonicals: [],
    alternates: [],
    rels: [],
    scripts: [],
    fixedWidths: [],
    headings: [],
    lookAlikes: [],
    unnamedSections: [],
    focusables: [],
    bodyStart: null,
    landmarks: [],
    images: [],
    links: [],
    controls: [],
    ids: [],
    data: [],
    inline: { microdata: false, rdfa: false },
    comments: parsed.comments,
    parseErrors: parsed.errors,
    text: '',
    main: { by: 'body', text: '', words: 0, lead: 0 },
  }
  return {
    source,
    where,
    page,
    text: new RunningText(),
    resolve: resolverFor(where.url),
    candidates: { chosen: null, mains: [], articles: [], containers: [], excluded: [], prose: 0 },
  }
}

/** Addresses from here on resolve against the page's base. */
export function setBase(reading: Reading, href: string): void {
  const { page, where } = reading
  page.base = href
  reading.resolve = resolverFor(resolveAddress(href, where.url) ?? where.url)
}

/** A start tag's place. An element that the standard adds without a tag stands at 0. */
export const placeOf = ({ place }: Element): Place => ({
  start: place?.start ?? 0,
  end: place?.startEnd ?? null,
})
