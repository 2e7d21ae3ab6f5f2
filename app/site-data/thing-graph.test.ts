import { describe, expect, it } from 'vitest'
import { graphOf } from './thing-graph.ts'

const thing = (id: string, types: string[], name: string | null = null, conflicts = false) => ({
  id,
  name,
  types,
  pages: ['a'],
  conflicts,
})
const link = (from: string, property: string, to: string, dangling = false) => ({
  from,
  property,
  to,
  pages: 1,
  dangling,
})

describe('the graph of things', () => {
  it('tells things without an id by what they are, and keeps those with one apart', () => {
    const graph = graphOf({
      pages: [],
      things: [
        thing('page:a.html', ['Article']),
        thing('page:b.html', ['Article']),
        thing('#org', ['Organization'], 'Light', true),
      ],
      links: [
        link('page:a.html', 'publisher', '#org'),
        link('page:b.html', 'publisher', '#org'),
        link('page:b.html', 'author', '#org'),
        link('#org', 'founder', '#nobody', true),
      ],
    })
    expect(graph.edges).toEqual([
      { from: 'type:Article', to: '#org', properties: ['publisher', 'author'], count: 3 },
      { from: '#org', to: '#nobody', properties: ['founder'], count: 1 },
    ])
    expect(graph.from).toEqual([
      { key: 'type:Article', name: 'Article', says: '2', kind: 'group' },
      { key: '#org', name: 'Light', says: 'Organization', kind: 'two ways' },
    ])
    expect(graph.to.map((n) => [n.key, n.kind])).toEqual([
      ['#org', 'two ways'],
      ['#nobody', 'nowhere'],
    ])
  })
  it('leaves out the thinnest of too many, and says how many', () => {
    const things = Array.from({ length: 9 }, (_, i) => thing(`#${i}`, ['Thing']))
    const links = things.slice(1).map((t, i) => ({ ...link('#0', 'about', t.id), pages: i + 1 }))
    const graph = graphOf({ pages: [], things, links }, 3)
    expect(graph.edges.map((e) => e.count)).toEqual([8, 7, 6])
    expect(graph.more).toBe(5)
  })
})
