/** What the outline's keys and words wish for, each as a change of the lines. */
import type { OutlineCommandId } from '../../ui/commands.ts'
import {
  closeGap,
  joinWithNext,
  moveLevel,
  parentsOf,
  setLevel,
  takeOut,
  toParagraph,
  toSubtitle,
  type Line,
  type Wish,
} from './outline-lines.ts'

/** The commands that change a heading. */
export type WishName = Exclude<
  OutlineCommandId,
  'up' | 'down' | 'first' | 'last' | 'pageUp' | 'pageDown' | 'fold' | 'unfold' | 'words' | 'source' | 'leave'
>
export type MakeWish = (lines: Line[], at: number) => Wish

const toLevel =
  (level: number): MakeWish =>
  (lines, at) =>
    setLevel(lines[at]!, level)

export const wishes: Record<WishName, MakeWish> = {
  in: (lines, at) => moveLevel(lines, at, 1, false),
  out: (lines, at) => moveLevel(lines, at, -1, false),
  inAlone: (lines, at) => moveLevel(lines, at, 1, true),
  outAlone: (lines, at) => moveLevel(lines, at, -1, true),
  paragraph: (lines, at) => toParagraph(lines[at]!),
  heading: (lines, at) => setLevel(lines[at]!, lines[at]!.level),
  join: joinWithNext,
  subtitle: toSubtitle,
  gap: (lines, at) => closeGap(lines, parentsOf(lines), at),
  takeOut: (lines, at) => takeOut(lines[at]!),
  level1: toLevel(1),
  level2: toLevel(2),
  level3: toLevel(3),
  level4: toLevel(4),
  level5: toLevel(5),
  level6: toLevel(6),
}
