/** Every view by its address: what it is for, in one line, and the section of the guide that is about it. */

export interface ViewHelp {
  /** What it is called on the screen. */
  name: string
  /** What it is for, a sentence that goes on from the name; none where the view itself says so. */
  purpose?: string
  /** Heading of the guide's section, as docs/guide.md has it. */
  section: string
}

const helpOf = {
  shelf: {
    name: 'Shelf',
    section: 'Take pages in',
  },
  intake: {
    name: 'Intake',
    section: 'Take pages in',
  },
  left: {
    name: 'What is left',
    purpose:
      'everything that is still to be mended or filled in, what matters most first; each line leads to its pages.',
    section: 'See where things stand',
  },
  ledger: {
    name: 'All pages',
    purpose: 'every page in one table: find, sort, filter, edit titles in place, change many at once.',
    section: 'See where things stand',
  },
  keywords: {
    name: 'Keywords',
    section: 'Choose what the pages should be found for',
  },
  snippet: {
    name: 'Snippet',
    purpose:
      'write the title and description where they are shown, at true size, and see where each would be cut.',
    section: 'Rewrite the snippet',
  },
  'line-up': {
    name: 'Line-up',
    purpose: 'see your result among those that people see for the page’s phrase, and word it against them.',
    section: 'See the result among the others',
  },
  outline: {
    name: 'Outline',
    purpose: 'put the headings on the right steps: one first-level heading, nothing skipped, nothing empty.',
    section: 'Put headings right',
  },
  galley: {
    name: 'Galley',
    purpose: 'read and edit the page’s text block by block, its phrases picked out.',
    section: 'Read and edit the text',
  },
  links: {
    name: 'Links',
    purpose:
      'who links to this page and with which words, where it leads, and which mentions could be links.',
    section: 'See and mend the links',
  },
  data: {
    name: 'Data',
    purpose: 'say in structured data what the page is about, filled from its own text.',
    section: 'Describe the page as structured data',
  },
  head: {
    name: 'Head',
    purpose:
      'language, robots, metas, pictures and landmarks; how the page looks on a phone, and what it weighs.',
    section: 'Mend the head and the page’s structure',
  },
  source: {
    name: 'Source',
    purpose: 'the page as it would be handed off, with what you changed marked.',
    section: 'Check the whole page’s HTML',
  },
  'structured-data': {
    name: 'Data',
    purpose:
      'what every page says it is about, how those things refer to one another, and where they disagree.',
    section: 'Describe the page as structured data',
  },
  templates: {
    name: 'Headings that recur',
    purpose: 'mend a heading once that stands on many pages.',
    section: 'Put headings right',
  },
  'house-style': {
    name: 'House style',
    section: 'House style',
  },
  suggestions: {
    name: 'Suggestions',
    purpose: 'take or decline what a consultant’s sheet suggests, page by page, beside what is there.',
    section: 'Take suggestions',
  },
  'taken-again': {
    name: 'Taken in again',
    purpose: 'what is live now, what is still to do, and what somebody else changed.',
    section: 'Take pages in',
  },
  review: {
    name: 'Review',
    purpose: 'every change before and after, page by page: approve it or send it back.',
    section: 'Review',
  },
  'hand-off': {
    name: 'Hand-off',
    purpose: 'the changed files, redirects, sitemap and lists that leave Keen Quill.',
    section: 'Approve and hand off',
  },
  progress: {
    name: 'Progress',
    purpose: 'how the pages that you changed do, week by week, against those left alone.',
    section: 'See whether it helped',
  },
} as const satisfies Record<string, ViewHelp>
export type ViewId = keyof typeof helpOf
export const views: Readonly<Record<ViewId, ViewHelp>> = helpOf

const isView = (id: string): id is ViewId => Object.hasOwn(helpOf, id)

/** The view at an address of the application; null where there is none of its own, such as About. */
export function viewAt(pathname: string, search: string): ViewId | null {
  if (pathname === '/') return 'shelf'
  const [first, , section] = pathname.split('/').slice(1)
  if (first !== 'sites') return first === 'intake' ? 'intake' : null
  const asked = new URLSearchParams(search)
  if (section === 'ledger') return asked.get('view') === 'left' ? 'left' : 'ledger'
  const id = section === 'desk' ? (asked.get('sheet') ?? 'snippet') : (section ?? '')
  return isView(id) ? id : section === 'desk' ? 'snippet' : null
}
