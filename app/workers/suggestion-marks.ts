/** What a suggestion would leave to be mended, beside what there is. */
import { onePage } from '../../core/page/read/boundary.ts'
import { ruleOf } from '../../core/rules/runner.ts'
import type { PageId } from '../../core/site/page-identity.ts'
import { applyChanges, type Decisions } from '../../core/work/decisions.ts'
import { evaluate, readDraft } from '../../core/work/evaluate.ts'
import { answered, openFields, suggestionOf } from '../../core/work/suggestions.ts'
import { current, sourceFor } from './open-site.ts'

/** Names of the rules that speak of title and description: as the page stands, and with all that is suggested taken. */
export async function suggestionMarks(
  id: PageId,
  decisions: Decisions,
): Promise<{ now: string[]; then: string[] } | null> {
  const open = current
  const page = open?.pages.get(id)
  const source = open && page && (await sourceFor(open, id))
  const suggestion = suggestionOf(decisions)
  if (!source || !suggestion) return null
  const namesOf = (of: Decisions): string[] => {
    const { openMarks } = evaluate(readDraft(page, source, of, open.setting))
    const families = openMarks
      .map((m) => ruleOf(m.rule))
      .filter((r) => r.family === 'title' || r.family === 'description')
    return [...new Set(families.map((r) => r.name))]
  }
  const changes = answered(id, decisions, new Set(openFields(suggestion))).map(({ key, after }) => ({
    page: id,
    key,
    before: decisions[key],
    after,
  }))
  const outcome = onePage(() => ({
    ok: true,
    value: { now: namesOf(decisions), then: namesOf(applyChanges(decisions, changes)) },
  }))
  return outcome.ok ? outcome.value : null
}
