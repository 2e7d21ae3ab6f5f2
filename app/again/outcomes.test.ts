import { describe, expect, it } from 'vitest'
import { outcomesOf } from './outcomes.ts'

describe('what taking in again came to', () => {
  it('is listed in the order of the pages’ paths, whatever their ids', () => {
    const paths = ['shop/lamp-10.html', 'shop/lamp-2.html', 'a.html', 'shop/lamp-1.html']
    const rows = new Map(paths.map((path, i) => [`id${9 - i}`, { path }]))
    const work = new Map([...rows].map(([id]) => [id, { 'edit:title': { value: 'x' } }]))
    expect(outcomesOf(work, '2026-11-26', rows).toDo.map(({ page }) => rows.get(page)!.path)).toEqual([
      'a.html',
      'shop/lamp-1.html',
      'shop/lamp-2.html',
      'shop/lamp-10.html',
    ])
  })
})
