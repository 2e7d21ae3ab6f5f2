import cyrillic from '@fontsource/arimo/files/arimo-cyrillic-400-normal.woff2?url'
import greek from '@fontsource/arimo/files/arimo-greek-400-normal.woff2?url'
import latinExt from '@fontsource/arimo/files/arimo-latin-ext-400-normal.woff2?url'
import latin from '@fontsource/arimo/files/arimo-latin-400-normal.woff2?url'
import { useState } from 'react'
import { toast } from 'sonner'
import { readAnswers, type GivenAnswer } from '../../core/exchange/approval-answers.ts'
import { takeHash, wordingHash } from '../../core/exchange/approval.ts'
import type { Decision } from '../store/work-log.ts'
import type { Session } from '../session/session.ts'
import { fieldValue } from '../../core/work/typed-field.ts'
import { lineUpPlaces } from '../session/line-up-places.ts'
import { today } from '../session/today.ts'
import { takeChosen } from '../session/take-choice.ts'
import { download, fileName } from '../ui/download.ts'
import { Dialog } from '../ui/dialog.tsx'
import { FilePick } from '../ui/file-pick.tsx'
import { plural, someOf } from '../ui/plural.ts'
import { tell } from '../ui/tell.ts'
import type { PageForApproval } from '../workers/approval.ts'
import { core } from '../workers/client.ts'
import type { ChangedPage } from '../../core/exchange/hand-off.ts'

/** Subsets of the shipped font by what they cover; a file carries those that its pages need. */
const subsets = [
  {
    url: latin,
    range:
      'U+0-FF,U+131,U+152-153,U+2BB-2BC,U+2C6,U+2DA,U+2DC,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD',
    needs: /./,
  },
  {
    url: latinExt,
    range: 'U+100-130,U+132-151,U+154-2BA,U+1E00-1E9F,U+1EF2-1EFF,U+20A0-20AB,U+20AD-20C0',
    needs: /[\u0100-\u0130\u0132-\u0151\u0154-\u02ba\u1e00-\u1eff]/,
  },
  { url: greek, range: 'U+370-3FF', needs: /[\u0370-\u03ff]/ },
  { url: cyrillic, range: 'U+301,U+400-45F,U+490-491,U+4B0-4B1,U+2116', needs: /[\u0400-\u045f]/ },
]

async function fontsFor(text: string): Promise<{ base64: string; range: string }[]> {
  const wanted = subsets.filter((s) => s.needs.test(text))
  return Promise.all(
    wanted.map(async ({ url, range }) => {
      const bytes = new Uint8Array(await (await fetch(url)).arrayBuffer())
      let binary = ''
      for (let i = 0; i < bytes.length; i += 0x8000)
        binary += String.fromCharCode(...bytes.subarray(i, i + 0x8000))
      return { base64: btoa(binary), range }
    }),
  )
}

/** What puts the takes that a colleague chose in place of the draft. */
function takesAnswered(
  session: Session,
  { id, takes, typedTakes }: PageForApproval,
  chosen: GivenAnswer['takes'],
): Decision[] {
  const row = session.get().rows.get(id)
  if (!row) return []
  return (['title', 'description'] as const).flatMap((role) => {
    const at = takes[role].findIndex((text) => takeHash(text) === chosen[role])
    if (at < 0) return []
    const decisions = session.decisionsOf(id)
    const target = role === 'title' ? 'title' : 'meta:description'
    // Whether it is what the source says is not asked: an edit that changes nothing is shown as none.
    const stood = { present: fieldValue(decisions, target, row), source: undefined }
    return takeChosen(id, decisions, role, typedTakes[role][at]!, stood)
  })
}

/** What a colleague without the application gets, and what comes back from them. */
export function ForApproval({ session, pages }: { session: Session; pages: ChangedPage[] }) {
  const [open, setOpen] = useState(false)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const chosen = pages.filter((p) => !left.has(p.id)).map((p) => p.id)

  async function save() {
    await session.flush()
    const work = Object.fromEntries(chosen.map((id) => [id, session.decisionsOf(id)]))
    const drawn = await core().approvalPages(chosen, work, Object.fromEntries(lineUpPlaces))
    const text = JSON.stringify(drawn)
    const html = await core().approvalFile(drawn, await fontsFor(text))
    if (html) download(fileName(session.get().site.name, '-for-approval.html'), html, 'text/html')
    setOpen(false)
  }

  async function read(file: File) {
    const result = readAnswers(await file.text())
    if (!result.ok) return void toast.error(`${file.name}: ${result.why}`)
    const { by, answers } = result.answers
    // The file names pages as people do, by path; a page keeps its path as long as it is on the shelf.
    const byPath = new Map([...session.get().rows.values()].map((row) => [row.path, row.id]))
    const ids = answers.flatMap((a) => byPath.get(a.path) ?? [])
    const work = Object.fromEntries(ids.map((id) => [id, session.decisionsOf(id)]))
    const now = new Map((await core().approvalPages(ids, work, {})).map((p) => [p.path, p]))
    const decisions: Decision[] = []
    const outdated: string[] = []
    const unknown: string[] = []
    const counts = { yes: 0, no: 0, note: 0 }
    let takes = 0
    for (const { path, of, answer, note, takes: chosenTakes } of answers) {
      const asked = now.get(path)
      if (!asked) unknown.push(path)
      else if (wordingHash(asked.after) !== of) outdated.push(path)
      else {
        const page = asked.id
        const chosen = takesAnswered(session, asked, chosenTakes)
        takes += chosen.length > 0 ? 1 : 0
        decisions.push(...chosen)
        const kind = answer ?? 'note'
        counts[kind]++
        const words = [note.trim(), by.trim() && `(${by.trim()})`].filter(Boolean).join(' ')
        decisions.push({
          page,
          key: 'answer',
          after: { answer: kind, note: note.trim(), date: today(), by: by.trim() },
        })
        if (kind === 'yes') decisions.push({ page, key: 'state', after: 'approved' })
        if (kind === 'no') decisions.push({ page, key: 'state', after: 'drafted' })
        decisions.push({
          page,
          key: 'note',
          after: kind === 'yes' && !note.trim() ? undefined : words || 'not approved',
        })
      }
    }
    await session.decide(`Answers${by ? ` from ${by}` : ''}`, decisions)
    const told = [`${counts.yes} approved, ${counts.no} sent back, ${plural(counts.note, 'note')}.`]
    if (takes > 0)
      told.push(`On ${plural(takes, 'page')} another wording was chosen and stands in the result.`)
    if (outdated.length > 0)
      told.push(`Changed since they were asked, so the answer does not count: ${someOf(outdated)}.`)
    if (unknown.length > 0) told.push(`No such page: ${someOf(unknown)}.`)
    toast(told.join(' '), { duration: 12_000 })
  }

  return (
    <>
      <button type="button" className="button" disabled={pages.length === 0} onClick={() => setOpen(true)}>
        For approval …
      </button>
      <FilePick
        label="Answer file"
        accept=".json"
        testId="answers-input"
        onFile={(file) => void tell(`${file.name} could not be read`, () => read(file))}
      >
        Read answers …
      </FilePick>
      <Dialog
        open={open}
        onOpenChange={setOpen}
        title="For approval"
        description="One HTML file with the results of these pages before and after. Whoever gets it ticks yes or no, writes notes, and sends a small answer file back. It needs no network and no application."
      >
        <fieldset className="max-h-[44vh] overflow-auto border-y border-rule-2 py-2">
          <legend className="sr-only">Pages</legend>
          {pages.map((p) => (
            <label key={p.id} className="flex items-baseline gap-2 py-0.5">
              <input
                type="checkbox"
                className="accent-ink"
                checked={!left.has(p.id)}
                onChange={(e) => {
                  const next = new Set(left)
                  if (e.target.checked) next.delete(p.id)
                  else next.add(p.id)
                  setLeft(next)
                }}
              />
              <span className="min-w-0 flex-1 truncate">{p.path}</span>
              <span className="text-[13px] text-ink-3">{p.state}</span>
            </label>
          ))}
        </fieldset>
        <button
          type="button"
          className="button button-main mt-4"
          disabled={chosen.length === 0}
          onClick={() => void tell('The file could not be made', save)}
        >
          Save the file for {plural(chosen.length, 'page')}
        </button>
      </Dialog>
    </>
  )
}
