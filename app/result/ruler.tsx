import type { Fit } from '../../core/measure/snippet.ts'

const TALL = 10

/** A printer's rule in pixels: the cut as a line, the risk band hatched, and how far the text reaches. */
export function Ruler({
  column,
  riskFrom,
  px,
  fit,
  scale = 1,
  direction = 'ltr',
}: {
  column: number
  riskFrom: number
  px: number
  fit: Fit
  /** Px on the screen for each px of the text; 1 where the text stands at true size below it. */
  scale?: number
  /** Which way the text reads: it is measured from where it begins. */
  direction?: 'ltr' | 'rtl'
}) {
  const step = scale < 0.7 ? 20 : 10
  const labelled = scale < 0.7 ? 200 : 100
  const ticks = Array.from({ length: Math.floor(column / step) + 1 }, (_, i) => i * step)
  const width = column * scale
  const fromStart = (at: number) => (direction === 'rtl' ? width - at : at)
  const reach = fromStart(Math.min(px, column) * scale)
  return (
    <div className="relative" style={{ width, height: 40 }} aria-hidden>
      {ticks
        .filter((t) => t % labelled === 0)
        .map((t) => (
          <span
            key={t}
            className="absolute text-[11px] text-ink-3"
            style={{
              left: fromStart(t * scale),
              transform: t === 0 && scale < 1 ? undefined : 'translateX(-50%)',
              top: 0,
            }}
          >
            {t}
          </span>
        ))}
      <svg
        className="absolute left-0 overflow-visible"
        style={{ top: 16 }}
        width={width}
        height={TALL}
        aria-hidden
      >
        {ticks.map((t) => (
          <line
            key={t}
            x1={fromStart(t * scale) + 0.5}
            x2={fromStart(t * scale) + 0.5}
            y1={t % 100 === 0 ? 0 : t % 50 === 0 ? 3 : 6}
            y2={TALL}
            stroke="var(--sign)"
          />
        ))}
        <line x1="0" x2={width} y1={TALL} y2={TALL} stroke="var(--ink)" />
        {px > 0 && (
          <path
            d={`M${reach - 4} ${TALL + 7}L${reach} ${TALL + 1}l4 6z`}
            fill={fit === 'cut' ? 'var(--carmine)' : 'var(--ink)'}
          />
        )}
      </svg>
      <span
        className="hatched absolute opacity-70"
        style={{
          [direction === 'rtl' ? 'right' : 'left']: riskFrom * scale,
          width: (column - riskFrom) * scale,
          top: 29,
          height: 8,
        }}
      />
      <span
        className="absolute w-[2px] bg-carmine"
        style={{ left: fromStart(width) - 1, top: 16, height: 24 }}
      />
    </div>
  )
}
