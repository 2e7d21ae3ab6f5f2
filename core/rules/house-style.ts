/** House style: the limits, patterns and severities that a site is judged by. Everything in it is the house's to change. */
import Joi from 'joi'
import { mainChoicePattern } from '../page/read/main-content.ts'
import { defaultSlots, type Slots } from '../measure/snippet.ts'
import { defaultEye, eyeExplained, type EyeWeights } from '../results/eye.ts'
import { decodedPath } from '../addresses/addresses.ts'
import { matchesAddress } from '../addresses/match-address.ts'
import { casings, type Casing } from '../wording/casing.ts'
import { languagePattern } from '../words/language.ts'

export type Severity = 'blocker' | 'flaw' | 'nit'
export const severities: Severity[] = ['blocker', 'flaw', 'nit']
export const pageTypes = ['article', 'product', 'listing', 'landing', 'contact', 'home'] as const
export type PageType = (typeof pageTypes)[number]

export interface Limits {
  titleLongest: number
  titleShortest: number
  descriptionLongest: number
  descriptionShortest: number
  leadWords: number
  slugLongest: number
  slugWords: number
  slugDeepest: number
  headingLongest: number
  headingFewest: number
  headingGap: number
  textShortest: number
  keywordDensest: number
  altLongest: number
  keywordsMost: number
  imageHeaviest: number
  pageHeaviest: number
}

/** What each limit is, in words, with its unit and where its figure comes from. */
export const limitsExplained: { key: keyof Limits; name: string; unit: string; basis: string }[] = [
  {
    key: 'titleLongest',
    name: 'Title, at most',
    unit: 'characters',
    basis: 'Common practice, no source. The cut itself is by width, not by characters.',
  },
  {
    key: 'titleShortest',
    name: 'Title, at least',
    unit: 'characters',
    basis: 'Common practice, no source: a shorter one leaves room unused.',
  },
  {
    key: 'descriptionLongest',
    name: 'Description, at most',
    unit: 'characters',
    basis: 'Common practice, no source. The cut itself is by width.',
  },
  {
    key: 'descriptionShortest',
    name: 'Description, at least',
    unit: 'characters',
    basis: 'Common practice, no source: a sentence or two.',
  },
  {
    key: 'leadWords',
    name: 'Keyword within the first',
    unit: 'words',
    basis: 'Common practice, no source.',
  },
  {
    key: 'slugLongest',
    name: 'Slug, at most',
    unit: 'characters',
    basis: 'Common practice, no source: addresses are read aloud and typed.',
  },
  { key: 'slugWords', name: 'Slug, at most', unit: 'words', basis: 'Common practice, no source.' },
  { key: 'slugDeepest', name: 'Address, at most', unit: 'segments', basis: 'Common practice, no source.' },
  {
    key: 'headingLongest',
    name: 'Heading, at most',
    unit: 'characters',
    basis: 'Common practice, no source.',
  },
  {
    key: 'headingFewest',
    name: 'H2s in an article, at least',
    unit: 'headings',
    basis: 'Common practice, no source; only for pages of type article.',
  },
  {
    key: 'headingGap',
    name: 'Text without a heading, at most',
    unit: 'words',
    basis: 'Common practice, no source.',
  },
  {
    key: 'textShortest',
    name: 'Main content, at least',
    unit: 'words',
    basis: 'Common practice, no source; not for pages of type contact or listing.',
  },
  {
    key: 'keywordDensest',
    name: 'Keyword, at most',
    unit: '% of the words',
    basis: 'Common practice, no source.',
  },
  {
    key: 'altLongest',
    name: 'Alternative text, at most',
    unit: 'characters',
    basis: 'Common practice, no source: it is read aloud in one go.',
  },
  {
    key: 'keywordsMost',
    name: 'Keywords for a page, at most',
    unit: 'phrases',
    basis: 'Common practice, no source: two or three are enough.',
  },
  {
    key: 'imageHeaviest',
    name: 'Image file, at most',
    unit: 'kB',
    basis: 'Common practice, no source: on a phone’s connection a heavier one is waited for.',
  },
  {
    key: 'pageHeaviest',
    name: 'Page with its own files, at most',
    unit: 'kB',
    basis: 'Common practice, no source; style sheets, scripts and images, as far as the site has them.',
  },
]

/** What the house style asks of pages whose address matches; the rest is as for the whole site. */
export interface AddressStyle {
  /** A path from the root such as `/stories/*`, `*` standing for anything. */
  match: string
  type?: PageType | null
  titlePattern?: string | null
  casing?: Casing
  limits?: Partial<Limits>
  rules?: Readonly<Record<string, Severity | 'off'>>
}

export interface HouseStyle {
  /** The site's language as BCP 47, for pages that name none; null offers no repair. */
  language: string | null
  /** The site's name as titles carry it, `{site}`; null where it is not known. */
  siteName: string | null
  /** What stands between a page's words and the site's name, with its spaces. */
  separator: string
  casing: Casing
  /** Words and phrases written as they stand here, whatever the casing style. */
  protectedWords: readonly string[]
  forbiddenWords: readonly string[]
  /** Such as `{page} | {site}`; null asks for none. */
  titlePattern: string | null
  limits: Limits
  slots: Slots
  /** The weights of the model of where the eye lands. */
  eye: EyeWeights
  /** By rule id: another severity, or off. */
  rules: Readonly<Record<string, Severity | 'off'>>
  addresses: readonly AddressStyle[]
  /**
   * Where main content stands on this site's pages: a tag, an id or a class such as `#content`; null has it found page
   * by page.
   */
  main: string | null
  /** The type of the page that this style was made for; null where none is given. */
  type: PageType | null
}

export const defaultStyle: HouseStyle = {
  language: null,
  siteName: null,
  separator: ' | ',
  casing: 'as typed',
  protectedWords: [],
  forbiddenWords: [],
  titlePattern: null,
  limits: {
    titleLongest: 65,
    titleShortest: 30,
    descriptionLongest: 160,
    descriptionShortest: 70,
    leadWords: 100,
    slugLongest: 60,
    slugWords: 6,
    slugDeepest: 4,
    headingLongest: 70,
    headingFewest: 5,
    headingGap: 300,
    textShortest: 300,
    keywordDensest: 3,
    altLongest: 125,
    keywordsMost: 5,
    imageHeaviest: 200,
    pageHeaviest: 2_000,
  },
  slots: defaultSlots,
  eye: defaultEye,
  rules: {},
  addresses: [],
  main: null,
  type: null,
}

const px = Joi.number().positive().max(10_000)
const slot = Joi.object({
  column: px,
  size: Joi.number().integer().min(6).max(72),
  lines: Joi.number().integer().min(1).max(10),
  allowance: px,
  riskPx: px,
})
const role = Joi.object({ wide: slot, narrow: slot })
const count = Joi.number().integer().min(1).max(100_000)
const limits = Joi.object(Object.fromEntries(limitsExplained.map(({ key }) => [key, count])))
const rules = Joi.object().pattern(Joi.string(), Joi.valid(...severities, 'off'))
const casing = Joi.valid(...casings)
const words = Joi.array().items(Joi.string().trim().min(1).max(100)).max(2000)
const titlePattern = Joi.string().trim().max(300).allow(null)

export const houseStyleSchema = Joi.object({
  language: Joi.string().pattern(languagePattern, 'language tag').allow(null),
  siteName: Joi.string().trim().min(1).max(200).allow(null),
  separator: Joi.string().min(1).max(10),
  casing,
  protectedWords: words,
  forbiddenWords: words,
  titlePattern,
  limits,
  slots: Joi.object({ title: role, description: role }),
  eye: Joi.object(
    Object.fromEntries(eyeExplained.map(({ key, least, most }) => [key, Joi.number().min(least).max(most)])),
  ),
  rules,
  addresses: Joi.array()
    .items(
      Joi.object({
        match: Joi.string().trim().pattern(/^\//, 'path that begins with /').max(500).required(),
        type: Joi.valid(...pageTypes, null),
        titlePattern,
        casing,
        limits,
        rules,
      }),
    )
    .max(200),
  main: Joi.string().max(200).pattern(mainChoicePattern, 'tag, #id or .class').allow(null),
  type: Joi.valid(null),
})

/** What a casing style leaves as the house writes it: its protected words, and its own name. */
export const protectedBy = ({ protectedWords, siteName }: HouseStyle): string[] =>
  siteName ? [...protectedWords, siteName] : [...protectedWords]

const FORMAT = 'keen-quill-house-style'

/** A house style as a file to keep and to share. */
export const writeHouseStyle = (style: HouseStyle): string =>
  JSON.stringify({ format: FORMAT, version: 1, style: ownStyle(style) }, null, 2) + '\n'

/** A house style from a file or a store, what it leaves out filled with the defaults; or why it cannot be one. */
export function readHouseStyle(input: unknown): { ok: true; style: HouseStyle } | { ok: false; why: string } {
  const wrapped = typeof input === 'object' && input !== null && 'format' in input
  if (wrapped && (input as { format: unknown }).format !== FORMAT)
    return {
      ok: false,
      why: 'The file is not a house style. Choose a house style that was saved from Keen Quill.',
    }
  const { value, error } = houseStyleSchema.validate(wrapped ? (input as { style?: unknown }).style : input)
  if (error) return { ok: false, why: `The house style cannot be read: ${error.message}.` }
  const given = value as Partial<HouseStyle>
  const merge = (which: 'title' | 'description') => ({
    wide: { ...defaultSlots[which].wide, ...given.slots?.[which]?.wide },
    narrow: { ...defaultSlots[which].narrow, ...given.slots?.[which]?.narrow },
  })
  return {
    ok: true,
    style: {
      ...defaultStyle,
      ...given,
      limits: { ...defaultStyle.limits, ...given.limits },
      slots: { title: merge('title'), description: merge('description') },
      eye: { ...defaultEye, ...given.eye },
    },
  }
}

/** What of a style differs from the defaults: that is what is kept, so that defaults can grow. */
export function ownStyle(style: HouseStyle): Partial<HouseStyle> {
  const kept: Record<string, unknown> = {}
  for (const key of Object.keys(defaultStyle) as (keyof HouseStyle)[])
    if (key !== 'type' && JSON.stringify(style[key]) !== JSON.stringify(defaultStyle[key]))
      kept[key] = style[key]
  return kept
}

const effective = new WeakMap<HouseStyle, Map<string, HouseStyle>>()

/** The house style for one page: the site's, and on top of it, in order, what is asked of addresses like its. */
export function styleFor(style: HouseStyle, url: string): HouseStyle {
  if (style.addresses.length === 0) return style
  const path = decodedPath(url)
  const matching = style.addresses.filter((a) => matchesAddress(a.match, path))
  if (matching.length === 0) return style
  const key = matching.map((a) => style.addresses.indexOf(a)).join(',')
  let known = effective.get(style)
  if (!known) effective.set(style, (known = new Map()))
  let styleHere = known.get(key)
  if (!styleHere) {
    styleHere = matching.reduce<HouseStyle>(
      (all, { type, titlePattern, casing, limits, rules }) => ({
        ...all,
        type: type ?? all.type,
        titlePattern: titlePattern === undefined ? all.titlePattern : titlePattern,
        casing: casing ?? all.casing,
        limits: { ...all.limits, ...limits },
        rules: { ...all.rules, ...rules },
      }),
      { ...style, addresses: [] },
    )
    known.set(key, styleHere)
  }
  return styleHere
}

/** Starting points for houses of different kinds; none is more right than another, and every figure is common practice. */
export const presets: {
  name: string
  for: string
  style: Partial<Omit<HouseStyle, 'limits'>> & { limits?: Partial<Limits> }
}[] = [
  {
    name: 'Plain',
    for: 'Any site: the usual limits, no casing style, no title pattern.',
    style: {},
  },
  {
    name: 'Magazine',
    for: 'Articles and news: headlines in AP style, a year that must be current, longer descriptions.',
    style: {
      casing: 'ap',
      titlePattern: '{page} | {site}',
      limits: { titleLongest: 70, descriptionShortest: 100 },
      rules: { 'title-stale-year': 'flaw' },
    },
  },
  {
    name: 'Shop',
    for: 'Products and product lists: the shop’s name after every title, and no lists of words as descriptions.',
    style: {
      titlePattern: '{page} | {site}',
      limits: { titleShortest: 20 },
      rules: { 'description-list': 'flaw', 'title-near-duplicate': 'flaw' },
    },
  },
  {
    name: 'Public service',
    for: 'Councils, charities, libraries: sentence style, plain words, short titles.',
    style: {
      casing: 'sentence',
      titlePattern: '{page} – {site}',
      separator: ' – ',
      limits: { titleLongest: 60 },
      rules: { 'title-shouting': 'flaw' },
    },
  },
  {
    name: 'Handbook',
    for: 'Documentation: short titles and deep addresses are fine, and no keyword is needed.',
    style: {
      casing: 'sentence',
      limits: { titleShortest: 10, slugDeepest: 7 },
      rules: { 'title-keyword': 'nit', 'slug-keyword': 'off', 'description-missing': 'nit' },
    },
  },
]
