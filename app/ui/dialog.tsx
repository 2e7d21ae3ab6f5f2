import { Dialog as Radix } from 'radix-ui'

/** A dialog on paper: a heading, what it is for, its content, and a way out by Escape. */
export function Dialog({
  open,
  onOpenChange,
  title,
  description,
  children,
  width = 560,
}: {
  open: boolean
  onOpenChange(open: boolean): void
  title: string
  description?: string
  children: React.ReactNode
  width?: number
}) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-30 bg-black/40" />
        <Radix.Content
          aria-describedby={description ? undefined : ''}
          style={{ width }}
          className="sheet fixed top-1/2 left-1/2 z-40 max-h-[88vh] max-w-[94vw] -translate-x-1/2 -translate-y-1/2 overflow-auto p-7"
        >
          <Radix.Title className="font-serif text-[22px] leading-7">{title}</Radix.Title>
          {description && <Radix.Description className="mt-1 text-ink-2">{description}</Radix.Description>}
          <div className="mt-4">{children}</div>
          <Radix.Close className="quiet absolute top-5 right-6 text-[13px]">Close</Radix.Close>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
