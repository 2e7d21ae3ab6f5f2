/** Which phrase a page is for: those without a page first, then the rest by demand. */
import { Command } from 'cmdk'
import { useState } from 'react'
import type { PageId } from '../../core/site/page-identity.ts'
import { keywordsOf } from '../../core/work/decisions.ts'
import type { Session } from '../session/session.ts'
import { matchesTyped } from '../ui/command-registry.ts'
import { Dialog } from '../ui/dialog.tsx'
import type { MapPhrase } from './map-phrases.tsx'
import { assignPhrases, pageName, type SiteKeywords } from './site-keywords.ts'

const MOST = 80

export function PhrasePicker({
  session,
  keywords,
  phrases,
  page,
  onClose,
}: {
  session: Session
  keywords: SiteKeywords
  phrases: MapPhrase[]
  page: PageId
  onClose(): void
}) {
  const [typed, setTyped] = useState('')
  const row = keywords.rows.get(page)
  if (!row) return null
  const role = keywordsOf(session.decisionsOf(page))?.primary ? 'secondary' : 'primary'
  const assign = (phrase: string) => {
    void assignPhrases(session, `“${phrase}” for ${pageName(row)}`, [{ page, phrase, role }])
    onClose()
  }
  const named = phrases
    .filter((p) => matchesTyped(p.phrase, typed.trim()) && !p.pages.some((a) => a.id === page))
    .sort((a, b) => Math.min(a.pages.length, 1) - Math.min(b.pages.length, 1))
    .slice(0, MOST)
  const isNew =
    typed.trim() !== '' && !named.some((p) => p.phrase.toLowerCase() === typed.trim().toLowerCase())
  return (
    <Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      title={`What should “${pageName(row)}” be found for?`}
      description={`The phrase becomes its ${role} keyword.`}
      width={560}
    >
      <Command label="Phrases" shouldFilter={false} loop>
        <Command.Input
          autoFocus
          value={typed}
          onValueChange={setTyped}
          placeholder="Find or type a phrase"
          className="field font-serif text-[16px]"
          maxLength={200}
        />
        <Command.List label="Phrases" className="mt-2 h-[300px] overflow-auto">
          {named.map((p) => (
            <Command.Item
              key={p.key}
              value={p.key}
              onSelect={() => assign(p.phrase)}
              className="flex cursor-pointer items-baseline gap-3 px-2 py-1 data-[selected=true]:bg-quill-soft"
            >
              <span className="min-w-0 truncate font-serif text-[16px]">{p.phrase}</span>
              <span className="ml-auto shrink-0 text-[12px] text-ink-2 tabular-nums">
                {p.pages.length > 0 ? 'has a page' : (p.monthly?.toLocaleString('en') ?? '')}
              </span>
            </Command.Item>
          ))}
          {isNew && (
            <Command.Item
              value={`new ${typed}`}
              onSelect={() => assign(typed.trim())}
              className="cursor-pointer px-2 py-1 data-[selected=true]:bg-quill-soft"
            >
              Use “{typed.trim()}”
            </Command.Item>
          )}
        </Command.List>
      </Command>
    </Dialog>
  )
}
