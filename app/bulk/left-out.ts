/** The pages that an editor leaves out of a change of many. */
import { useState } from 'react'
import type { PageId } from '../../core/site/page-identity.ts'

/** A set of pages with some put in or taken out. */
export function withLeftOut(
  leftOut: ReadonlySet<PageId>,
  pages: Iterable<PageId>,
  out: boolean,
): ReadonlySet<PageId> {
  const next = new Set(leftOut)
  for (const page of pages)
    if (out) next.add(page)
    else next.delete(page)
  return next
}

/** None left out at first. */
export function useLeftOut(): [ReadonlySet<PageId>, (pages: Iterable<PageId>, out: boolean) => void] {
  const [leftOut, setLeftOut] = useState<ReadonlySet<PageId>>(new Set())
  return [leftOut, (pages, out) => setLeftOut((now) => withLeftOut(now, pages, out))]
}
