/** The steps that take one page from phrase to review: what each is for, what good looks like, and where it is done. */
import type { LedgerRow } from '../../core/work/evaluate.ts'
import { draftOf, keywordsOf, phrasesOf, type Decisions } from '../../core/work/decisions.ts'
import { isQuestion } from '../../core/words/questions.ts'
import { plural } from '../ui/plural.ts'

export const stepIds = [
  'readers',
  'phrases',
  'phrase',
  'title',
  'description',
  'heading',
  'text',
  'pictures',
  'questions',
  'review',
] as const
export type StepId = (typeof stepIds)[number]

/** What is decided already, for the line that says how far a step is. */
export interface StandsAt {
  row: LedgerRow
  decisions: Decisions
  ofSite: Decisions
}
export interface Step {
  /** As it stands in the list of steps. */
  name: string
  purpose: string
  good: string
  /** What the place is called, for the way there. */
  place: string
  /** Where it is done, below the site's address. */
  to(path: string): string
  /** What takes the focus there, as a selector. */
  focus: string
  soFar(stands: StandsAt): string
}

const desk = (sheet: string) => (path: string) => `desk?page=${encodeURIComponent(path)}&sheet=${sheet}`
const quoted = (text: string | null | undefined, none: string) => (text ? `“${text}”` : none)
const edited = ({ decisions }: StandsAt, kind: string): number =>
  Object.keys(draftOf(decisions)).filter((target) => target.startsWith(`${kind}@`)).length

export const steps: Record<StepId, Step> = {
  readers: {
    name: 'Readers',
    purpose:
      'Say where your readers are and, in one or two words, what the page is about: what people search with is looked up from that.',
    good: 'A good topic is a word that a reader would use: “ferry” rather than “maritime transport”.',
    place: 'Find phrases',
    to: () => 'keywords',
    focus: 'input[name=topic]',
    soFar: ({ row }) => `The page now: ${quoted(row.h1 || row.title, 'it has no heading')}.`,
  },
  phrases: {
    name: 'Phrases',
    purpose: 'Keep two or three phrases that people search with and that this page really answers.',
    good: 'A phrase that fits is worth more than one that is searched more often and does not.',
    place: 'Find phrases',
    to: () => 'keywords',
    focus: '[aria-labelledby=phrases-title] input[type=checkbox]',
    soFar: ({ ofSite }) => `Kept so far on the site’s list: ${plural(phrasesOf(ofSite).length, 'phrase')}.`,
  },
  phrase: {
    name: 'Its phrase',
    purpose: 'Decide which of them this page is for; others can stand beside it as secondary keywords.',
    good: 'Good is a phrase that no other page of the site is for.',
    place: 'Snippet',
    to: desk('snippet'),
    focus: '#primary',
    soFar: ({ decisions }) => `This page is for: ${quoted(keywordsOf(decisions)?.primary, 'no phrase yet')}.`,
  },
  title: {
    name: 'Title',
    purpose:
      'Write the title, the line by which a page is chosen in the results; takes are drafted to start from.',
    good: 'A good one has the phrase near its beginning, fits its line whole, and says something that those around it do not.',
    place: 'Line-up',
    to: desk('line-up'),
    focus: '[data-testid=line-up-title]',
    soFar: ({ row }) => `The title now: ${quoted(row.title, 'none')}.`,
  },
  description: {
    name: 'Description',
    purpose: 'Write the description, which says why this page should be opened rather than the next.',
    good: 'A good one fits its lines, has the phrase once, and promises only what the page holds.',
    place: 'Snippet',
    to: desk('snippet'),
    focus: '[data-testid=description]',
    soFar: ({ row }) => `The description now: ${quoted(row.description, 'none')}.`,
  },
  heading: {
    name: 'First heading',
    purpose: 'See that the first heading tells whoever has come that this is the right place.',
    good: 'Good is a single H1, close to the title and without what only the results need.',
    place: 'Outline',
    to: desk('outline'),
    focus: '[role=treeitem][tabindex="0"]',
    soFar: ({ row }) =>
      `The H1 now: ${quoted(row.h1, 'none')}${row.h1Count > 1 ? `, one of ${row.h1Count}` : ''}.`,
  },
  text: {
    name: 'Text',
    purpose: 'Go through the text block by block; where the phrase stands already, it is picked out.',
    good: 'Good is the phrase in the first paragraph and wherever it comes naturally; a sentence that was bent for it is worse than none.',
    place: 'Galley',
    to: desk('galley'),
    focus: '[data-testid=galley] [data-block] [tabindex="0"]',
    soFar: (stands) => `Blocks edited so far: ${edited(stands, 'text')}.`,
  },
  pictures: {
    name: 'Pictures',
    purpose:
      'Say in words what each picture shows, for those who cannot see it and for searches of pictures.',
    good: 'A good text says in one short sentence what matters here; a picture that only decorates has an empty one.',
    place: 'Head',
    to: desk('head'),
    focus: '[data-part=images] input, [data-part=images]',
    soFar: ({ row }) =>
      row.images === 0
        ? 'The page has no pictures.'
        : `Without an alternative text: ${row.imagesWithoutAlt} of ${plural(row.images, 'picture')}.`,
  },
  questions: {
    name: 'Questions',
    purpose: 'See what people ask around the phrase, and answer here what the page does not answer yet.',
    good: 'A good answer begins with the answer and takes two or three sentences.',
    place: 'Galley',
    to: desk('galley'),
    focus: '[data-testid=questions] summary',
    soFar: (stands) =>
      phrasesOf(stands.ofSite).some(({ phrase }) => isQuestion(phrase, stands.row.lang))
        ? `Blocks added so far: ${edited(stands, 'after')}.`
        : 'The site’s list has no question yet. Keep some under Find phrases, or go on.',
  },
  review: {
    name: 'Review',
    purpose: 'Look through everything that was changed on this page; each change has its way back here.',
    good: 'Good is a page that you would send to the printer: approve it, or go back to any step.',
    place: 'Review',
    to: (path) => `review?page=${encodeURIComponent(path)}`,
    focus: '[data-testid=review]',
    soFar: ({ decisions }) =>
      decisions.state === 'approved' ? 'The page is approved.' : 'The page is not approved yet.',
  },
}
