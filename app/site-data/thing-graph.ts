/** The site's things as a graph that can be read: who points on the left, what is pointed to on the right. */
import type { SiteDataView } from '../workers/data-site.ts'

export interface GraphNode {
  key: string
  name: string
  says: string
  kind: 'described' | 'group' | 'nowhere' | 'two ways'
}
export interface GraphEdge {
  from: string
  to: string
  properties: string[]
  count: number
}
export interface Graph {
  from: GraphNode[]
  to: GraphNode[]
  edges: GraphEdge[]
  /** Edges that were left out, the thinnest ones. */
  more: number
}

/** Things without an `@id` are told by what they are: forty articles of one publisher are one line. */
export function graphOf({ things, links }: SiteDataView, most = 40): Graph {
  const byId = new Map(things.map((t) => [t.id, t]))
  const typeOf = (id: string) => byId.get(id)?.types.join(', ') || 'Thing'
  const isOwn = (id: string) => !id.startsWith('page:')
  const groups = new Map<string, Set<string>>()
  const keyOf = (id: string) => (isOwn(id) ? id : `type:${typeOf(id)}`)
  const edges = new Map<string, GraphEdge>()
  for (const { from, to, property, pages } of links) {
    const [a, b] = [keyOf(from), keyOf(to)]
    if (a === b) continue
    for (const [key, id] of [
      [a, from],
      [b, to],
    ] as const)
      if (!isOwn(id)) groups.set(key, (groups.get(key) ?? new Set()).add(id))
    const key = `${a}\n${b}`
    const edge = edges.get(key) ?? { from: a, to: b, properties: [], count: 0 }
    if (!edge.properties.includes(property)) edge.properties.push(property)
    edge.count += pages
    edges.set(key, edge)
  }
  const all = [...edges.values()].sort(
    (x, y) => y.count - x.count || (x.from + x.to < y.from + y.to ? -1 : 1),
  )
  const kept = all.slice(0, most)
  const nowhere = new Set(links.filter((l) => l.dangling).map((l) => l.to))
  const nodeOf = (key: string): GraphNode => {
    const thing = byId.get(key)
    if (key.startsWith('type:'))
      return { key, name: key.slice(5), says: `${groups.get(key)?.size ?? 0}`, kind: 'group' }
    if (!thing) return { key, name: key, says: '', kind: nowhere.has(key) ? 'nowhere' : 'described' }
    return {
      key,
      name: thing.name ?? key,
      says: thing.types.join(', '),
      kind: thing.conflicts ? 'two ways' : 'described',
    }
  }
  const keys = (side: 'from' | 'to') => [...new Set(kept.map((e) => e[side]))]
  return {
    from: keys('from').map(nodeOf),
    to: keys('to').map(nodeOf),
    edges: kept,
    more: all.length - kept.length,
  }
}
