/** The outline's lines with the newest decisions laid over them, and what a wish comes to. */
import { describe, expect, it } from 'vitest'
import type { PageView } from '../../workers/page-view.ts'
import {
  bandsOf,
  closeGap,
  joinWithNext,
  linesOf,
  moveLevel,
  parentsOf,
  sectionOf,
  setLevel,
  shownLines,
  takeOut,
  toParagraph,
  toSubtitle,
  type Line,
} from './outline-lines.ts'

const line = (level: number, text: string, more: Partial<Line> = {}): Line => ({
  key: `heading@${text}`,
  byte: 0,
  line: 1,
  kind: 'heading',
  level,
  text,
  landmark: 'main',
  words: 1,
  hasKeyword: false,
  hidden: false,
  images: 0,
  sure: true,
  byRole: false,
  tag: `h${level}`,
  className: '',
  adjacent: false,
  byRule: false,
  start: 0,
  ...more,
})
const lines = [
  line(3, 'menu', { landmark: 'nav' }),
  line(1, 'a'),
  line(2, 'b'),
  line(4, 'c'),
  line(5, 'd'),
  line(2, 'like', { kind: 'like', key: 'block@9' }),
  line(2, 'e'),
]

describe('the staircase', () => {
  it('hangs each heading from the nearest higher one of its landmark; lines that are none hang and carry nothing', () => {
    expect(parentsOf(lines)).toEqual([null, null, 1, 2, 3, 1, 1])
    expect(sectionOf(lines, 2)).toEqual([2, 3, 4])
    expect(sectionOf(lines, 1)).toEqual([1, 2, 3, 4, 6])
  })
  it('hides what hangs below a folded one', () => {
    expect(shownLines(lines, parentsOf(lines), new Set(['heading@b']))).toEqual([0, 1, 2, 5, 6])
  })
  it('has a band for each run of one landmark', () => {
    expect(bandsOf(lines)).toEqual([
      { landmark: 'nav', from: 0, to: 0 },
      { landmark: 'main', from: 1, to: 6 },
    ])
  })
})

describe('a wish', () => {
  it('moves a heading with its section, or alone', () => {
    expect(moveLevel(lines, 3, -1, false)).toMatchObject({
      changes: [
        { key: 'heading@c', edit: { level: 3 } },
        { key: 'heading@d', edit: { level: 4 } },
      ],
    })
    expect(moveLevel(lines, 3, -1, true)).toMatchObject({
      changes: [{ key: 'heading@c', edit: { level: 3 } }],
    })
  })
  it('says why it cannot be', () => {
    expect(moveLevel(lines, 1, -1, false)).toEqual({ why: 'H1 is the highest level.' })
    expect(moveLevel(lines, 3, 2, false)).toMatchObject({ why: expect.stringMatching(/beyond H6/) })
    expect(moveLevel(lines, 5, 1, false)).toMatchObject({ why: expect.stringMatching(/not a heading/) })
    expect(setLevel(line(2, 'x', { sure: false }), 3)).toMatchObject({
      why: expect.stringMatching(/no end tag/),
    })
    expect(joinWithNext(lines, 1)).toMatchObject({ why: expect.stringMatching(/directly follows/) })
    expect(toSubtitle(lines, 2)).toMatchObject({ why: expect.stringMatching(/directly before/) })
    expect(takeOut(lines[1]!)).toMatchObject({ why: expect.stringMatching(/empty/) })
    expect(closeGap(lines, parentsOf(lines), 2)).toMatchObject({ why: expect.stringMatching(/No level/) })
  })
  it('closes a gap with all that hangs below, joins what is adjacent, makes a subtitle, a paragraph and back', () => {
    expect(closeGap(lines, parentsOf(lines), 3)).toMatchObject({
      changes: [{ edit: { level: 3 } }, { edit: { level: 4 } }],
    })
    const two = [line(1, 'x'), line(2, 'y', { adjacent: true, byte: 40 })]
    expect(joinWithNext(two, 0)).toMatchObject({ changes: [{ key: 'heading@x', edit: { merge: [40] } }] })
    expect(toSubtitle(two, 1)).toMatchObject({ changes: [{ key: 'heading@y', edit: { hgroup: 0 } }] })
    expect(toParagraph(two[0]!)).toMatchObject({ changes: [{ edit: { tag: 'p' } }] })
    expect(toParagraph(line(2, 'z', { key: 'block@3' }))).toMatchObject({ changes: [{ edit: null }] })
    expect(takeOut(line(2, ''))).toMatchObject({ changes: [{ edit: { remove: true } }] })
  })
})

describe('the lines', () => {
  const heading = (
    byte: number,
    level: number,
    text: string,
    base: { level: number | null; text: string },
  ) => ({
    key: `heading@${byte}`,
    byte,
    line: 1,
    level,
    text,
    base,
    label: '',
    role: null,
    hidden: false,
    landmark: 'main',
    words: 1,
    hasKeyword: false,
    images: [],
    endStart: 9,
    tag: `h${level}`,
    className: '',
    adjacent: false,
    start: byte,
  })
  const view = {
    headings: [
      heading(10, 2, 'A', { level: 2, text: 'A' }),
      heading(20, 3, 'B', { level: 2, text: 'B' }),
      heading(30, 2, 'C', { level: 2, text: 'C' }),
    ],
    others: [
      {
        kind: 'like',
        key: 'block@15',
        byte: 15,
        line: 1,
        text: 'L',
        base: 'L',
        level: 2,
        byRule: false,
        landmark: 'main',
      },
      {
        kind: 'was',
        key: 'heading@25',
        byte: 25,
        line: 1,
        text: 'W',
        base: 'W',
        level: 4,
        byRule: false,
        landmark: 'main',
      },
    ],
  } as unknown as PageView
  const shape = (decisions: Record<string, unknown>) =>
    linesOf(view, decisions).map((l) => `${l.kind} ${l.level} ${l.text}`)

  it('stand in the order of the source, and what is undone is undone at once', () => {
    // The worker’s view still has B at H3, which nothing decides any more; W is a heading again.
    expect(shape({})).toEqual(['heading 2 A', 'like 2 L', 'heading 2 B', 'heading 4 W', 'heading 2 C'])
  })
  it('follow the newest decisions without waiting for the worker', () => {
    expect(
      shape({
        'edit:heading@10': { level: 4, value: 'A2' },
        'edit:block@15': { level: 3 },
        'edit:heading@20': { tag: 'p' },
        'edit:heading@25': { tag: 'p' },
        'edit:heading@30': { remove: true },
      }),
    ).toEqual(['heading 4 A2', 'heading 3 L', 'was 2 B', 'was 4 W'])
    expect(shape({ 'edit:heading@20': { merge: [30] }, 'edit:heading@25': { tag: 'p' } })).toEqual([
      'heading 2 A',
      'like 2 L',
      'heading 2 B',
      'was 4 W',
    ])
  })
})
