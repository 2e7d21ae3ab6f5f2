/** A last note of what is on its way to the store, in case a tab is gone before it arrives. */
import Joi from 'joi'
import { commit, type Decision } from '../store/work-log.ts'

const PREFIX = 'keen-quill-unsaved/'
const schema = Joi.object<{ label: string; decisions: Decision[] }>({
  label: Joi.string().required(),
  decisions: Joi.array()
    .items(
      Joi.object({ page: Joi.string().allow('').required(), key: Joi.string().required(), after: Joi.any() }),
    )
    .required(),
}).required()

export interface Journal {
  /** Written at once, before this returns. */
  write(decisions: Decision[]): void
  clear(): void
}

export function openJournal(site: string): Journal {
  const key = `${PREFIX}${site}/${crypto.randomUUID()}`
  return {
    write: (decisions) =>
      localStorage.setItem(key, JSON.stringify({ label: 'Kept when the tab was closed', decisions })),
    clear: () => localStorage.removeItem(key),
  }
}

/** Brings into the store what a tab noted when it was closed in the middle of a write. */
export async function replayJournals(site: string): Promise<void> {
  for (const key of Object.keys(localStorage).filter((k) => k.startsWith(PREFIX + site))) {
    const { value, error } = schema.validate(parsed(localStorage.getItem(key)))
    if (!error) await commit(site, value.label, value.decisions, new Date().toISOString())
    localStorage.removeItem(key)
  }
}

function parsed(json: string | null): unknown {
  try {
    return JSON.parse(json ?? 'null')
  } catch {
    return null
  }
}
