import { describe, expect, it } from 'vitest'
import {
  applyChanges,
  changesFor,
  decisionsSchema,
  draftOf,
  keywordsOf,
  stateOf,
  type Decisions,
} from './decisions.ts'

describe('decisions', () => {
  const decisions: Decisions = {
    'edit:title': { value: 'T' },
    'keyword:primary': 'tide',
    'edit:heading@8': { level: 2 },
  }
  it('hold the draft, the keywords and the state', () => {
    expect(draftOf(decisions)).toEqual({ title: { value: 'T' }, 'heading@8': { level: 2 } })
    expect(keywordsOf(decisions)).toEqual({ primary: 'tide', secondary: [] })
    expect(keywordsOf({})).toBeNull()
    expect([
      stateOf({}),
      stateOf(decisions),
      stateOf({ state: 'approved' }),
      stateOf({ 'keyword:primary': 'x' }),
    ]).toEqual(['untouched', 'drafted', 'approved', 'untouched'])
  })
  it('change by steps that go back as they came', () => {
    const approved: Decisions = { ...decisions, state: 'approved' }
    const changes = changesFor('a', approved, 'edit:title', { value: 'U' })
    expect(changes.map((c) => c.key)).toEqual(['edit:title', 'state'])
    const after = applyChanges(approved, changes)
    expect(stateOf(after)).toBe('drafted')
    expect(applyChanges(after, changes, true)).toEqual(approved)
    expect(changesFor('a', approved, 'edit:title', { value: 'T' })).toEqual([])
    expect(changesFor('a', approved, 'keyword:primary', undefined)).toHaveLength(1)
  })
  it('are checked at the door: what no editor could have decided is named', () => {
    const problem = (d: object) => decisionsSchema.validate(d).error?.message
    expect(problem(decisions)).toBeUndefined()
    expect(problem({ 'edit:script': { value: 'x' } })).toMatch(/“edit:script” is not a known decision/)
    expect(problem({ 'edit:title': { value: 5 } })).toMatch(/“edit:title”/)
    expect(problem({ state: 'published' })).toMatch(/“state”/)
    expect(problem({ 'edit:title': {} })).toMatch(/at least 1 key/)
  })
})
