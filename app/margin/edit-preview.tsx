import { Popover } from 'radix-ui'
import { useState } from 'react'
import type { Draft } from '../../core/page/edits/draft.ts'
import type { Session } from '../session/session.ts'
import { core } from '../workers/client.ts'
import type { Hunk } from '../workers/structure.ts'

/** What edits would change in the source, line by line, before they are made. */
export function EditPreview({ session, page, edits }: { session: Session; page: string; edits: Draft }) {
  const [seen, setSeen] = useState<{ hunks: Hunk[]; refused: string[] } | null>(null)
  return (
    <Popover.Root
      onOpenChange={(open) => {
        if (!open) return setSeen(null)
        void core().previewEdits(page, session.decisionsOf(page), edits).then(setSeen)
      }}
    >
      <Popover.Trigger className="quiet">Preview</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="left"
          sideOffset={12}
          className="sheet z-30 max-h-[60vh] w-[460px] max-w-[94vw] overflow-auto p-4 text-[13px]"
          data-testid="edit-preview"
        >
          {!seen && <p className="text-ink-2">Reading …</p>}
          {seen?.hunks.slice(0, 20).map((h, i) => (
            <div key={i} className="border-b border-rule-2 py-1.5 first:pt-0 last:border-b-0">
              <p className="text-[12px] text-ink-3">Line {h.line}</p>
              {h.before !== '' && (
                <p className="font-mono text-[12px] break-words text-ink-2 line-through decoration-1">
                  {h.before}
                </p>
              )}
              <p className="font-mono text-[12px] break-words">{h.after || <em>(removed)</em>}</p>
            </div>
          ))}
          {seen && seen.hunks.length > 20 && (
            <p className="mt-1 text-ink-2">and {seen.hunks.length - 20} more places</p>
          )}
          {seen && seen.hunks.length === 0 && seen.refused.length === 0 && (
            <p className="text-ink-2">Nothing changes in the source.</p>
          )}
          {seen?.refused.map((why) => (
            <p key={why} className="text-carmine">
              {why}
            </p>
          ))}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
