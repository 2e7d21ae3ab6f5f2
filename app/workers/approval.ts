/** Pages before and after, alone and among the others, for somebody to approve. */
import { sameAddress } from '../../core/addresses/addresses.ts'
import {
  writeApproval,
  type ApprovalFile,
  type ApprovalLineUp,
  type ApprovalPage,
} from '../../core/exchange/approval.ts'
import type { Role } from '../../core/measure/snippet.ts'
import { onePage } from '../../core/page/read/boundary.ts'
import { descriptionOf, titleOf, type PageFacts } from '../../core/page/read/facts.ts'
import type { ResultsQuestion } from '../../core/keywords/results-question.ts'
import { LINE_UP, withoutOurs, type ResultsAnswer } from '../../core/results/line-up.ts'
import { styleFor } from '../../core/rules/house-style.ts'
import { pathOf, type PageId } from '../../core/site/page-identity.ts'
import { tokenValues } from '../../core/site/page-tokens.ts'
import { fillTokens } from '../../core/wording/tokens.ts'
import { keywordsOf, takesOf, type Decisions } from '../../core/work/decisions.ts'
import { readDraft } from '../../core/work/evaluate.ts'
import { answersKept, type AnswerKept } from '../store/answers.ts'
import { current, sourceFor } from './open-site.ts'

export interface PageForApproval extends ApprovalPage {
  id: PageId
  /** The takes as they were typed, tokens and all, in the order of `takes`. */
  typedTakes: Record<Role, string[]>
}

/** `positions` are those at which the editor set pages' results in the line-up. A page that cannot be read is an error that names it. */
export async function approvalPages(
  ids: readonly PageId[],
  work: Record<PageId, Decisions>,
  positions: Record<PageId, number>,
): Promise<PageForApproval[]> {
  const open = current
  if (!open) return []
  const kept = await answersKept<ResultsQuestion, ResultsAnswer>('results')
  const pages: PageForApproval[] = []
  for (const id of ids) {
    const identity = open.pages.get(id)
    const source = identity && (await sourceFor(open, id))
    if (!source) continue
    const decisions = work[id] ?? {}
    const read = onePage(() => ({ ok: true, value: readDraft(identity, source, decisions, open.setting) }))
    if (!read.ok) throw new Error(`${pathOf(identity)}: ${read.why} Leave it out and try again.`)
    const { before, page } = read.value
    const wording = (p: PageFacts) => ({
      title: titleOf(p)?.text ?? '',
      description: descriptionOf(p)?.content ?? '',
      url: p.url,
    })
    const after = wording(page)
    const style = styleFor(open.setting.style, page.url)
    const values = tokenValues(page, { site: open.setting.index, style, date: open.setting.date })
    const others = (role: Role) =>
      takesOf(decisions, role)
        .map(({ text }) => ({ typed: text, filled: fillTokens(text, values).text }))
        .filter(({ filled }) => filled !== after[role])
    const takes = { title: others('title'), description: others('description') }
    pages.push({
      id,
      path: pathOf(identity),
      lang: page.lang,
      before: wording(before),
      after,
      takes: {
        title: takes.title.map((take) => take.filled),
        description: takes.description.map((take) => take.filled),
      },
      typedTakes: {
        title: takes.title.map((take) => take.typed),
        description: takes.description.map((take) => take.typed),
      },
      slots: style.slots,
      lineUp: lineUpOf(kept, keywordsOf(decisions)?.primary, [page.url, before.url], positions[id]),
    })
  }
  return pages
}

/** The newest results that are known for a phrase; null where none are. */
function lineUpOf(
  kept: readonly AnswerKept<ResultsQuestion, ResultsAnswer>[],
  phrase: string | undefined,
  own: readonly string[],
  set: number | undefined,
): ApprovalLineUp | null {
  const known = kept
    .filter(({ question }) => question.phrase.toLowerCase() === phrase?.toLowerCase())
    .sort((a, b) => (a.date < b.date ? 1 : -1))[0]
  if (!known) return null
  const { question, answer, source } = known
  const { others, ours } = withoutOurs(answer.results, (url) => own.some((o) => sameAddress(o, url)))
  const position = Math.min(others.length + 1, LINE_UP, set ?? ours?.position ?? 1)
  return {
    phrase: question.phrase,
    market: question.market,
    place: question.place,
    asOf: answer.asOf,
    source,
    position,
    isToday: ours?.position === position,
    others: others
      .slice(0, LINE_UP - 1)
      .map(({ url, trail, title, description }) => ({ url, trail, title, description })),
  }
}

export async function approvalFile(
  pages: readonly PageForApproval[],
  fonts: ApprovalFile['fonts'],
): Promise<string | null> {
  if (!current) return null
  const { site, setting } = current
  return writeApproval({ site: site.name, date: setting.date, pages, fonts })
}
