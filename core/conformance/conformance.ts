/**
 * Whole-page HTML conformance: content models, obsolete elements and attributes, missing or wrong values, as the package
 * html-validate finds them by the HTML standard. Slow, so it is asked for and never part of an audit's marks.
 */

/** One finding; line and column count from 1. `rule` is the package's own name for it. */
export interface Finding {
  rule: string
  message: string
  line: number
  column: number
}

/** Longer pages are not looked through: the package takes seconds for a megabyte. In UTF-16 units. */
const LONGEST = 2_000_000
/** More findings than this say no more than the first. */
const MOST = 500
/** The package's work grows with the square of how deep elements lie, and with how many there are. */
const DEEPEST = 300
const MOST_TAGS = 30_000

/** Elements without an end tag, or whose end tag may be left out (WHATWG HTML 13.1.2). */
const unclosed = new Set(
  'area base br col embed hr img input link meta source track wbr p li dt dd tr td th tbody thead tfoot option optgroup colgroup caption rt rp html head body'.split(
    ' ',
  ),
)

/** Why a page is beyond what can be checked; null where it is not. Tags are counted as they are written. */
function whyNotChecked(text: string): string | null {
  if (text.length > LONGEST)
    return `The page has more than ${LONGEST.toLocaleString('en')} characters, which is too many to check.`
  let tags = 0
  let depth = 0
  for (const [, slash, name] of text.matchAll(/<(\/?)([a-z][a-z0-9-]*)/gi)) {
    if (++tags > MOST_TAGS)
      return `The page has more than ${MOST_TAGS.toLocaleString('en')} tags, which is too many to check.`
    if (unclosed.has(name!.toLowerCase())) continue
    depth = slash ? Math.max(0, depth - 1) : depth + 1
    if (depth > DEEPEST)
      return `Its elements are nested more than ${DEEPEST} deep, or many are never closed, which is too many to check.`
  }
  return null
}

type Validator = (text: string) => Promise<Finding[]>
let loaded: Promise<Validator> | null = null

async function load(): Promise<Validator> {
  const { HtmlValidate } = await import('html-validate')
  const validator = new HtmlValidate({
    root: true,
    extends: ['html-validate:standard'],
    // Ids that are used twice are a mark of ours, and looking for them costs the square of their number.
    rules: { 'no-dup-id': 'off', 'form-dup-name': 'off', 'map-dup-name': 'off' },
  })
  return async (text) => {
    const report = await validator.validateString(text)
    return report.results
      .flatMap((result) => result.messages)
      .map(({ ruleId, message, line, column }) => ({ rule: ruleId, message, line, column }))
  }
}

/** What does not conform in a page's text, in document order. Never rejects: what cannot be looked through says so. */
export async function conformanceOf(text: string): Promise<Finding[]> {
  const whole = (message: string): Finding[] => [{ rule: 'not-checked', message, line: 1, column: 1 }]
  const why = whyNotChecked(text)
  if (why) return whole(why)
  try {
    const findings = await (await (loaded ??= load()))(text)
    return findings.sort((a, b) => a.line - b.line || a.column - b.column).slice(0, MOST)
  } catch (error) {
    return whole(`The page could not be checked (${(error as Error).message.slice(0, 200)}).`)
  }
}
