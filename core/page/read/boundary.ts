/**
 * The boundary of one page in every run over many: a page that cannot be read, is beyond what is read, or makes
 * something throw is named with the reason and left out, and the rest goes on.
 */
import type { PageFacts } from './facts.ts'
import { readPage, type Where } from './read-page.ts'
import type { Served } from '../source/served.ts'
import { readSource, type Source } from '../source/source.ts'

export type Outcome<T> = { ok: true; value: T } | { ok: false; why: string }

/** Does what is to be done for one page; what it throws becomes the reason why the page is left out. */
export function onePage<T>(job: () => Outcome<T>): Outcome<T> {
  try {
    return job()
  } catch (error) {
    const said = error instanceof Error ? error.message : String(error)
    return {
      ok: false,
      why: `It could not be checked because of a fault in Keen Quill (${said.slice(0, 200)}). It was left out; please report it with the page.`,
    }
  }
}

/** A page read from its bytes, or why it is left out. */
export const pageFrom = (
  bytes: Uint8Array,
  where: Where,
  served: Served | null = null,
): Outcome<{ source: Source; page: PageFacts }> =>
  onePage(() => {
    const read = readSource(bytes, served)
    if (!read.ok) return read
    const page = readPage(read.source, where)
    return page.beyond === null
      ? { ok: true, value: { source: read.source, page } }
      : { ok: false, why: page.beyond }
  })
