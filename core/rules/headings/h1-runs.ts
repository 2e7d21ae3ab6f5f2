import { isEmptyHeading, outlineOf, type HeadingFact, type PageFacts } from '../../page/read/facts.ts'

/** The page's H1 with text, in runs: those with nothing but white space between them stand in one run. */
export function h1Runs(page: PageFacts): HeadingFact[][] {
  const runs: HeadingFact[][] = []
  let previous: HeadingFact | null = null
  for (const h of outlineOf(page)) {
    if (h.level === 1 && !isEmptyHeading(h)) {
      if (previous?.level === 1 && h.adjacent && runs.length > 0) runs.at(-1)!.push(h)
      else runs.push([h])
    }
    previous = h
  }
  return runs
}
