import { Popover } from 'radix-ui'
import { useState } from 'react'
import type { Decisions } from '../../core/work/decisions.ts'
import { stateOf } from '../../core/work/decisions.ts'
import type { Session } from '../session/session.ts'

export const approve = (session: Session, page: string): Promise<void> =>
  session.decide('Approved', [
    { page, key: 'state', after: 'approved' },
    { page, key: 'note', after: undefined },
  ])

/** Where the page stands, and the two answers of whoever reviews it. */
export function Approval({
  session,
  page,
  decisions,
}: {
  session: Session
  page: string
  decisions: Decisions
}) {
  const [open, setOpen] = useState(false)
  const [word, setWord] = useState('')
  const state = stateOf(decisions)
  return (
    <div className="flex items-baseline gap-4 text-[13px]">
      <span data-testid="state" className="text-ink-2">
        State: <strong className="font-semibold text-ink">{state}</strong>
      </span>
      {state === 'approved' ? (
        <button
          type="button"
          className="quiet"
          onClick={() =>
            void session.decide('Approval withdrawn', [{ page, key: 'state', after: 'drafted' }])
          }
        >
          Withdraw
        </button>
      ) : (
        <button type="button" className="action" title="Alt+A" onClick={() => void approve(session, page)}>
          Approve
        </button>
      )}
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger className="quiet">Send back …</Popover.Trigger>
        <Popover.Portal>
          <Popover.Content side="bottom" align="end" sideOffset={8} className="sheet z-30 w-80 p-4">
            <form
              onSubmit={(event) => {
                event.preventDefault()
                setOpen(false)
                setWord('')
                void session.decide('Sent back', [
                  { page, key: 'state', after: 'drafted' },
                  { page, key: 'note', after: word.trim() },
                ])
              }}
            >
              <label className="font-semibold" htmlFor="send-back">
                Send it back with a note
              </label>
              <textarea
                id="send-back"
                className="field mt-2 h-20"
                required
                maxLength={2000}
                value={word}
                onChange={(e) => setWord(e.target.value)}
              />
              <button type="submit" className="button mt-2">
                Send back
              </button>
            </form>
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  )
}
