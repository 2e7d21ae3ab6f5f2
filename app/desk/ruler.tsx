import type { Fit } from '../../core/measure/snippet.ts'

const TALL = 10

/** A printer's rule in pixels: the cut as a line, the risk band hatched, and how far the text reaches. */
export function Ruler({
  column,
  riskFrom,
  px,
  fit,
}: {
  column: number
  riskFrom: number
  px: number
  fit: Fit
}) {
  const ticks = Array.from({ length: Math.floor(column / 10) + 1 }, (_, i) => i * 10)
  const reach = Math.min(px, column)
  return (
    <div className="relative" style={{ width: column, height: 40 }} aria-hidden>
      {ticks
        .filter((t) => t % 100 === 0)
        .map((t) => (
          <span
            key={t}
            className="absolute text-[11px] text-ink-3"
            style={{ left: t, transform: 'translateX(-50%)', top: 0 }}
          >
            {t}
          </span>
        ))}
      <svg
        className="absolute left-0 overflow-visible"
        style={{ top: 16 }}
        width={column}
        height={TALL}
        aria-hidden
      >
        {ticks.map((t) => (
          <line
            key={t}
            x1={t + 0.5}
            x2={t + 0.5}
            y1={t % 100 === 0 ? 0 : t % 50 === 0 ? 3 : 6}
            y2={TALL}
            stroke="var(--sign)"
          />
        ))}
        <line x1="0" x2={column} y1={TALL} y2={TALL} stroke="var(--ink)" />
        {px > 0 && (
          <path
            d={`M${reach - 4} ${TALL + 7}L${reach} ${TALL + 1}l4 6z`}
            fill={fit === 'cut' ? 'var(--carmine)' : 'var(--ink)'}
          />
        )}
      </svg>
      <span
        className="hatched absolute opacity-70"
        style={{ left: riskFrom, width: column - riskFrom, top: 29, height: 8 }}
      />
      <span className="absolute w-[2px] bg-carmine" style={{ left: column - 1, top: 10, height: 30 }} />
    </div>
  )
}
