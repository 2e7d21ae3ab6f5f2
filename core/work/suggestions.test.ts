import { describe, expect, it } from 'vitest'
import { answered, answerRows, openFields, suggestionOf } from './suggestions.ts'
import { applyChanges, decisionsSchema, type Decisions, type Suggestion } from './decisions.ts'

const suggested: Suggestion = {
  sheet: 'list.xlsx',
  date: '2026-11-26',
  row: 4,
  fields: {
    title: 'Knot course',
    description: 'Eight knots.',
    keyword: 'knot course',
    secondary: 'rope; knots',
    slug: 'knots',
  },
  note: 'soon',
  answers: {},
}
const answer = (
  decisions: Decisions,
  ...args: Parameters<typeof answered> extends [unknown, unknown, ...infer R] ? R : never
) =>
  applyChanges(
    decisions,
    answered('p', decisions, ...args).map(({ key, after }) => ({
      page: 'p',
      key,
      before: decisions[key],
      after,
    })),
  )

describe('a suggestion', () => {
  it('that is taken is a draft; what is declined beside it stays as a take, with the word', () => {
    const next = answer({ suggested }, new Set(['title', 'keyword', 'secondary', 'slug']), { why: 'too dry' })
    expect(next).toMatchObject({
      'edit:title': { value: 'Knot course' },
      'edit:slug': { value: 'knots' },
      'keyword:primary': 'knot course',
      'keyword:secondary': ['rope', 'knots'],
      'takes:description': [{ text: 'Eight knots.', from: 'list.xlsx, 2026-11-26' }],
    })
    expect(next['edit:meta:description']).toBeUndefined()
    expect(suggestionOf(next)!.answers).toMatchObject({
      title: { answer: 'taken' },
      description: { answer: 'declined', why: 'too dry' },
    })
    expect(openFields(suggestionOf(next)!)).toEqual([])
    expect(decisionsSchema.validate(next).error).toBeUndefined()
  })
  it('that is taken edited says so, and keeps the wording that was suggested', () => {
    const next = answer({ suggested }, new Set(['title']), { wanted: { title: 'A knot course' } })
    expect(next['edit:title']).toEqual({ value: 'A knot course' })
    expect(next['takes:title']).toEqual([{ text: 'Knot course', from: 'list.xlsx, 2026-11-26' }])
    expect(suggestionOf(next)!.answers.title!.answer).toBe('edited')
  })
  it('goes back with its answers, one row a field', () => {
    const next = answer(
      { suggested: { ...suggested, fields: { title: 'T', description: 'D' } } },
      new Set(['title']),
      { why: 'no' },
    )
    const rows = answerRows([
      { url: 'https://s.example/', suggestion: suggestionOf(next)!, said: (field) => `${field} now` },
    ])
    expect(rows.slice(1)).toEqual([
      [4, 'https://s.example/', 'title', 'T', 'taken', 'title now', ''],
      [4, 'https://s.example/', 'description', 'D', 'declined', 'description now', 'no'],
    ])
  })
})
