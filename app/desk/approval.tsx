import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { Popover } from 'radix-ui'
import { memo, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { PageState } from '../../core/work/decisions.ts'
import type { Session } from '../session/session.ts'
import { FormField } from '../ui/form.tsx'

export const approve = (session: Session, page: string): Promise<void> =>
  session.decide('Approved', [
    { page, key: 'state', after: 'approved' },
    { page, key: 'note', after: undefined },
  ])

/** Where the page stands, and the two answers of whoever reviews it. */
export const Approval = memo(function Approval({
  session,
  page,
  state,
}: {
  session: Session
  page: string
  state: PageState
}) {
  const [open, setOpen] = useState(false)
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
            <SendBackForm
              onSend={(note) => {
                setOpen(false)
                void session.decide('Sent back', [
                  { page, key: 'state', after: 'drafted' },
                  { page, key: 'note', after: note },
                ])
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </div>
  )
})

const noteSchema = Joi.object<{ note: string }>({
  note: Joi.string().trim().max(2000).required().messages({
    'string.empty': 'Say what should be different.',
    'string.max': 'Say it in 2,000 characters at most.',
  }),
})

function SendBackForm({ onSend }: { onSend(note: string): void }) {
  const { register, handleSubmit, formState } = useForm({
    resolver: joiResolver(noteSchema),
    defaultValues: { note: '' },
  })
  return (
    <form noValidate onSubmit={handleSubmit(({ note }) => onSend(note))}>
      <FormField
        label="Send it back with a note"
        rows={4}
        registered={register('note')}
        error={formState.errors.note}
      />
      <button type="submit" className="button mt-2">
        Send back
      </button>
    </form>
  )
}
