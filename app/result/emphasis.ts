/** Which stretches of a text results would set in bold, and what that adds to its width. */
import { compileKeyword, findKeyword } from '../../core/words/match.ts'
import { runsWidth, textWidth, type Weight } from '../../core/measure/width.ts'

export interface Run {
  text: string
  weight: Weight
}

/** A text in runs: the words of every match of these keywords in bold. Word forms count, in the page's language. */
export function emphasised(text: string, keywords: readonly string[], lang: string | null): Run[] {
  const bold = keywords
    .flatMap((k) => findKeyword(text, compileKeyword(k, lang)).flatMap((m) => m.words))
    .sort((a, b) => a.start - b.start)
  const runs: Run[] = []
  let at = 0
  for (const { start, end } of bold) {
    if (start < at) continue
    if (start > at) runs.push({ text: text.slice(at, start), weight: 'regular' })
    runs.push({ text: text.slice(start, end), weight: 'bold' })
    at = end
  }
  if (at < text.length) runs.push({ text: text.slice(at), weight: 'regular' })
  return runs
}

/** How many px wider a text is with its runs in bold. */
export const boldExtra = (runs: Run[], size: number): number =>
  runs.some((r) => r.weight === 'bold')
    ? runsWidth(runs, size).px - textWidth(runs.map((r) => r.text).join(''), size).px
    : 0

/** The part of runs from one UTF-16 unit of their text to another. */
export function sliceRuns(runs: Run[], from: number, to: number): Run[] {
  let at = 0
  return runs.flatMap((run) => {
    const start = at
    at += run.text.length
    const text = run.text.slice(Math.max(0, from - start), Math.max(0, to - start))
    return text === '' ? [] : [{ ...run, text }]
  })
}
