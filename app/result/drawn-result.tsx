import { CUT_SIGN } from '../../core/measure/cut.ts'
import { measure, type Role, type Screen, type Slots } from '../../core/measure/snippet.ts'
import { foldText } from '../../core/measure/width.ts'
import { directionOf } from '../ui/direction.ts'
import { emphasised, sliceRuns } from './emphasis.ts'
import { Runs } from './runs.tsx'

/** What a result says. */
export interface ResultText {
  /** The address as results show it, part by part. */
  trail: readonly string[]
  title: string
  description: string
  /** What stands before the description, such as a date. */
  lead?: string
  /** What is shown where there is no title, or no description; without it the lack is said. */
  instead?: { title: string; description: string }
}

/** Line heights of results, in px. From memory, as drawn on 2026 results. */
const LINE: Record<Role, number> = { title: 26, description: 22 }

/** A result as a wide or a narrow screen shows it, every line broken where it is broken there. */
export function DrawnResult({
  screen,
  result,
  slots,
  keywords = [],
  lang,
  className = '',
  children,
}: {
  screen: Screen
  result: ResultText
  slots: Slots
  /** Drawn in bold where they stand. */
  keywords?: readonly string[]
  lang: string | null
  className?: string
  /** What stands below the description. */
  children?: React.ReactNode
}) {
  return (
    <div
      className={`result ${className}`}
      lang={lang ?? undefined}
      style={{ width: slots.title[screen].column }}
    >
      <p className="truncate pb-0.5 text-[14px] leading-[22px] text-ink-2">{result.trail.join(' › ')}</p>
      {(['title', 'description'] as const).map((role) => (
        <ResultLines
          key={role}
          screen={screen}
          role={role}
          text={result[role]}
          lead={role === 'description' ? result.lead : undefined}
          instead={result.instead?.[role]}
          slots={slots}
          keywords={keywords}
          lang={lang}
        />
      ))}
      {children}
    </div>
  )
}

/** A title's or a description's lines, drawn as they were broken; for want of a text, what would be shown instead. */
export function ResultLines({
  screen,
  role,
  text,
  lead = '',
  instead,
  slots,
  keywords = [],
  lang,
}: {
  screen: Screen
  role: Role
  text: string
  lead?: string
  instead?: string
  slots: Slots
  keywords?: readonly string[]
  lang: string | null
}) {
  const isMissing = text.trim() === ''
  if (isMissing && instead === undefined) return <p className="text-[14px] text-carmine italic">no {role}</p>
  const whole = foldText(lead + (isMissing ? instead : text))
  const drawn = measure(whole, role, slots)[screen]
  const runs = emphasised(whole, keywords, lang)
  const colour = isMissing ? 'text-faded italic' : role === 'title' ? 'text-quill' : 'text-ink'
  return (
    <p
      style={{ fontSize: slots[role][screen].size, lineHeight: `${LINE[role]}px` }}
      className={`${role === 'description' ? 'mt-1' : ''} ${colour}`}
      data-testid={`${screen}-${role}`}
      dir={directionOf(whole)}
    >
      {placesOf(drawn.lines, whole).map(({ from, to }, i) => (
        <span key={i} className="block whitespace-pre">
          <Runs runs={sliceRuns(runs, from, to)} />
          {drawn.cut && i === drawn.lines.length - 1 && <span className="text-faded">{CUT_SIGN}</span>}
        </span>
      ))}
    </p>
  )
}

/** Where each line stands in the folded text. */
function placesOf(lines: string[], whole: string): { from: number; to: number }[] {
  const places: { from: number; to: number }[] = []
  for (const line of lines) {
    const from = Math.max(0, whole.indexOf(line, places.at(-1)?.to ?? 0))
    places.push({ from, to: from + line.length })
  }
  return places
}
