import { asLabel, inWords } from '../../core/structured-data/words.ts'
import { plural } from '../ui/plural.ts'
import type { SiteDataView } from '../workers/data-site.ts'
import { graphOf, type GraphNode } from './thing-graph.ts'

const ROW = 58
const BOX = 44
const WIDTH = 1052
const SIDE = 350

const names = (types: string) => types.split(', ').map(asLabel).join(', ')
const titleOf = (n: GraphNode) => (n.kind === 'group' ? names(n.name) : n.name.replace(/^https?:\/\//, ''))
const noteOf = (n: GraphNode) =>
  n.kind === 'group'
    ? plural(Number(n.says), 'of them, without an id', 'of them, without ids')
    : n.kind === 'nowhere'
      ? 'not described'
      : n.kind === 'two ways'
        ? `${names(n.says)}, described in two different ways`
        : names(n.says)

/** Things on the left that point to things on the right; the same in words below, for people who cannot see it. */
export function ThingGraph({ data }: { data: SiteDataView }) {
  const graph = graphOf(data)
  if (graph.edges.length === 0)
    return (
      <p className="mt-1 max-w-2xl font-serif text-[15px] text-ink-2 italic">
        Nothing points to anything else yet. Give the organisation an “@id” once, as “Publisher” above does,
        and let the pages point to it.
      </p>
    )
  const rows = Math.max(graph.from.length, graph.to.length)
  const height = rows * ROW
  const y = (list: GraphNode[], key: string) => {
    const i = list.findIndex((n) => n.key === key)
    return (i + 0.5) * (height / list.length)
  }
  const box = (n: GraphNode, x: number, at: number) => (
    <g key={`${x} ${n.key}`}>
      <rect
        x={x}
        y={at - BOX / 2}
        width={SIDE}
        height={BOX}
        fill="var(--paper)"
        stroke={n.kind === 'nowhere' || n.kind === 'two ways' ? 'var(--carmine)' : 'var(--rule)'}
        strokeDasharray={n.kind === 'nowhere' ? '5 4' : undefined}
      />
      <text x={x + 12} y={at - 4} fontSize="14.5" fill="var(--ink)" fontFamily="var(--font-serif)">
        {cut(titleOf(n), 44)}
      </text>
      <text
        x={x + 12}
        y={at + 13}
        fontSize="12"
        fill={n.kind === 'nowhere' || n.kind === 'two ways' ? 'var(--carmine)' : 'var(--ink-3)'}
      >
        {cut(noteOf(n), 54)}
      </text>
    </g>
  )
  return (
    <figure className="mt-2" data-testid="graph">
      <svg
        viewBox={`0 0 ${WIDTH} ${height}`}
        className="w-full"
        role="img"
        aria-label="Things and what they point to; listed in words below"
      >
        {graph.edges.map((e) => {
          const [a, b] = [y(graph.from, e.from), y(graph.to, e.to)]
          const [x1, x2] = [SIDE, WIDTH - SIDE]
          const middle = (x1 + x2) / 2
          return (
            <g key={`${e.from}\n${e.to}`}>
              <path
                d={`M${x1} ${a} C${middle} ${a} ${middle} ${b} ${x2} ${b}`}
                fill="none"
                stroke="var(--sign)"
                strokeWidth={Math.min(5, 1 + Math.log2(e.count))}
              />
              <text
                x={x1 + 10}
                y={a - 6 - 14 * graph.edges.filter((o) => o.from === e.from).indexOf(e)}
                fontSize="12"
                fill="var(--ink-2)"
                stroke="var(--desk)"
                strokeWidth="4"
                paintOrder="stroke"
              >
                {e.properties.map((p) => inWords(p)).join(', ')}
                {e.count > 1 && ` (${e.count})`}
              </text>
            </g>
          )
        })}
        {graph.from.map((n) => box(n, 1, y(graph.from, n.key)))}
        {graph.to.map((n) => box(n, WIDTH - SIDE - 1, y(graph.to, n.key)))}
      </svg>
      <details className="mt-1 text-[13px] text-ink-2">
        <summary>In words</summary>
        <ul>
          {graph.edges.map((e) => {
            const [from, to] = [
              graph.from.find((n) => n.key === e.from)!,
              graph.to.find((n) => n.key === e.to)!,
            ]
            return (
              <li key={`${e.from}\n${e.to}`}>
                {titleOf(from)} ({noteOf(from)}) → {e.properties.map((p) => inWords(p)).join(', ')} →{' '}
                {titleOf(to)} ({noteOf(to)})
              </li>
            )
          })}
        </ul>
      </details>
      {graph.more > 0 && (
        <figcaption className="text-[13px] text-ink-2">and {graph.more} weaker connections</figcaption>
      )}
    </figure>
  )
}
const cut = (text: string, most: number) => (text.length > most ? text.slice(0, most - 1) + '…' : text)
