import { CUT_SIGN } from '../../core/measure/cut.ts'
import { measure, type Role } from '../../core/measure/snippet.ts'
import { foldText } from '../../core/measure/width.ts'
import type { HouseStyle } from '../../core/rules/house-style.ts'
import { emphasised, sliceRuns } from './emphasis.ts'
import { Runs } from './runs.tsx'

const LINE = { title: 26, description: 22 }

/** Where each line stands in the folded text. */
function placesOf(lines: string[], whole: string): { from: number; to: number }[] {
  const places: { from: number; to: number }[] = []
  for (const line of lines) {
    const from = Math.max(0, whole.indexOf(line, places.at(-1)?.to ?? 0))
    places.push({ from, to: from + line.length })
  }
  return places
}

/** The narrow result's lines, drawn as they were broken; for want of a text, what would be shown instead. */
export function NarrowLines({
  role,
  style,
  text,
  instead,
  lead = '',
  keywords,
  lang,
}: {
  role: Role
  style: HouseStyle
  text: string
  instead: string
  /** What stands before the text, such as a date. */
  lead?: string
  keywords: readonly string[]
  lang: string | null
}) {
  const faded = text.trim() === ''
  const whole = foldText(lead + (faded ? instead : text))
  const { narrow } = measure(whole, role, style.slots)
  const runs = emphasised(whole, keywords, lang)
  const lines = placesOf(narrow.lines, whole)
  return (
    <p
      style={{ fontSize: style.slots[role].narrow.size, lineHeight: `${LINE[role]}px` }}
      className={`${role === 'description' ? 'mt-1' : ''} ${faded ? 'text-faded italic' : role === 'title' ? 'text-quill' : 'text-ink'}`}
      data-testid={`narrow-${role}`}
    >
      {lines.map(({ from, to }, i) => (
        <span key={i} className="block whitespace-pre">
          <Runs runs={sliceRuns(runs, from, to)} />
          {narrow.cut && i === lines.length - 1 && <span className="text-faded">{CUT_SIGN}</span>}
        </span>
      ))}
    </p>
  )
}
