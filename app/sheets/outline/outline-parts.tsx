import { Link } from 'react-router'
import { landmarkNames } from '../../ui/landmark-names.ts'
import { ROW, STEP, TOP, WIDTH, xOf } from './outline-row.tsx'

/** The landmark that lines live in, as a band behind them. */
export function Band({
  landmark,
  from,
  to,
}: {
  landmark: keyof typeof landmarkNames | null
  from: number
  to: number
}) {
  return (
    <div
      aria-hidden
      className={`absolute left-0 ${landmark === 'main' ? '' : 'right-0'} ${landmark ? 'bg-paper-2' : ''}`}
      style={{
        top: TOP + from * ROW + 2,
        height: (to - from + 1) * ROW - 4,
        ...(landmark === 'main' ? { width: 30 } : {}),
      }}
    >
      {landmark &&
        (to > from ? (
          <span className="absolute inset-y-0 left-0 grid w-[30px] place-items-center">
            <span
              className="font-serif text-[12px] text-ink-2 italic"
              style={{ writingMode: 'vertical-rl', transform: 'rotate(180deg)' }}
            >
              {landmarkNames[landmark]}
            </span>
          </span>
        ) : (
          <span className="absolute inset-y-0 left-1 flex items-center font-serif text-[12px] text-ink-2 italic">
            {landmarkNames[landmark]}
          </span>
        ))}
    </div>
  )
}

/** Lines from each heading to the one it hangs from; a skipped level is hatched. */
export function Connectors({
  drawn,
  parents,
  rowOf,
  all,
  height,
}: {
  drawn: { line: { key: string; level: number; kind: string; hidden: boolean }; row: number; index: number }[]
  parents: (number | null)[]
  rowOf: ReadonlyMap<number, number>
  all: { level: number }[]
  height: number
}) {
  return (
    <svg className="pointer-events-none absolute inset-0" width={WIDTH} height={height} aria-hidden>
      <defs>
        <pattern id="gap" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="5" stroke="var(--carmine)" strokeWidth="1.4" />
        </pattern>
      </defs>
      {drawn.map(({ line, row, index }) => {
        const parent = parents[index]
        if (parent === null || parent === undefined || line.kind !== 'heading' || line.hidden) return null
        const above = rowOf.get(parent)
        if (above === undefined) return null
        const level = all[parent]!.level
        const y = TOP + row * ROW + ROW / 2
        const px = xOf(level) + 4
        return (
          <g key={line.key} stroke="var(--sign)" fill="none">
            <path d={`M${px} ${TOP + above * ROW + ROW - 6}V${y}H${xOf(line.level) + 4}`} />
            {line.level - level > 1 && (
              <rect
                x={xOf(level + 1) + 4}
                y={y - 7}
                width={(line.level - level - 1) * STEP - 8}
                height="14"
                fill="url(#gap)"
                stroke="none"
                data-testid="gap"
              />
            )}
          </g>
        )
      })}
    </svg>
  )
}

/** What can be done with the selected line, each with its key. */
export function Actions({
  line,
  onWish,
  onEdit,
  onSource,
  templates,
}: {
  line: { kind: string; text: string; level: number; line: number }
  onWish(which: string): void
  onEdit(): void
  onSource(): void
  templates: string | null
}) {
  const heading = line.kind === 'heading'
  const actions: [string, string, () => void, boolean][] = [
    ['Tab', 'in, with its section', () => onWish('in'), heading],
    ['Shift Tab', 'out', () => onWish('out'), heading],
    ['Alt →', 'in alone', () => onWish('inAlone'), heading],
    ['Alt ←', 'out alone', () => onWish('outAlone'), heading],
    ['Enter', 'words', onEdit, heading],
    ['P', 'paragraph', () => onWish('paragraph'), heading],
    ['H', `make it an H${line.level}`, () => onWish('heading'), !heading],
    ['M', 'join with the next', () => onWish('join'), heading],
    ['S', 'subtitle', () => onWish('subtitle'), heading],
    ['G', 'close the gap', () => onWish('gap'), heading],
    ['Del', 'remove', () => onWish('takeOut'), heading && line.text === ''],
    ['L', `line ${line.line}`, onSource, true],
  ]
  return (
    <div
      id="after-outline"
      tabIndex={-1}
      role="group"
      aria-label="What can be done with the selected line"
      className="sticky bottom-0 z-10 flex flex-wrap items-baseline gap-x-3.5 gap-y-1 bg-desk pt-2 pb-1 text-[13px] text-ink-2"
    >
      {actions
        .filter(([, , , there]) => there)
        .map(([key, name, act]) => (
          <button key={key} type="button" className="hover:text-ink" onClick={act}>
            <kbd>{key}</kbd> {name}
          </button>
        ))}
      {templates && (
        <Link className="action" to={templates}>
          On other pages too …
        </Link>
      )}
    </div>
  )
}
