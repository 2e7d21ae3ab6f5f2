import { DndContext, PointerSensor, useSensor, useSensors } from '@dnd-kit/core'
import { pointing } from '../../ui/pointing.ts'
import { bandsOf, type Line } from './outline-lines.ts'
import { Band, Connectors } from './outline-parts.tsx'
import { ROW, STEP, TOP, WIDTH, xOf } from './outline-row.tsx'

/** A line that is drawn: which row it stands in, and which of all lines it is. */
export interface DrawnLine {
  line: Line
  row: number
  index: number
}

/** The six steps, the connections and the bands of skipped levels, with the headings drawn on them as children. */
export function Staircase({
  sheet,
  lines,
  drawn,
  all,
  parents,
  rowOf,
  onMoveBy,
  children,
}: {
  sheet: React.RefObject<HTMLElement | null>
  /** The lines that are not folded away. */
  lines: Line[]
  drawn: DrawnLine[]
  all: Line[]
  parents: (number | null)[]
  rowOf: ReadonlyMap<number, number>
  /** A heading was dragged so many levels sideways. */
  onMoveBy(key: string, levels: number): void
  children: React.ReactNode
}) {
  const sensors = useSensors(useSensor(PointerSensor, pointing))
  const height = TOP + lines.length * ROW + 16
  const from = drawn[0]?.row ?? 0
  const to = drawn.at(-1)?.row ?? -1
  return (
    <div className="overflow-x-auto">
      <DndContext
        id="outline"
        sensors={sensors}
        onDragEnd={({ active, delta }) => {
          const levels = Math.round(delta.x / STEP)
          if (levels !== 0) onMoveBy(String(active.id), levels)
        }}
      >
        <section
          ref={sheet}
          className="sheet relative overflow-hidden"
          style={{ height: Math.max(height, 120), width: WIDTH }}
        >
          {[1, 2, 3, 4, 5, 6].map((level) => (
            <div
              key={level}
              aria-hidden
              className="absolute top-9 bottom-0 border-l border-rule-2"
              style={{ left: xOf(level) }}
            >
              <span className="absolute -top-6 left-0 text-[12px] font-semibold text-ink-3">H{level}</span>
            </div>
          ))}
          {bandsOf(lines)
            .filter((band) => band.to >= from && band.from <= to)
            .map((band) => (
              <Band
                key={band.from}
                {...band}
                from={Math.max(from - 1, band.from)}
                to={Math.min(to + 1, band.to)}
              />
            ))}
          <Connectors drawn={drawn} parents={parents} rowOf={rowOf} all={all} height={height} />
          {children}
        </section>
      </DndContext>
    </div>
  )
}
