import { useState } from 'react'

/** A part of the sheet that opens below its heading; whether it stands open is remembered for every page. */
export function Drawer({
  id,
  title,
  summary,
  children,
  defaultOpen = false,
}: {
  id: string
  title: string
  /** What is in it, in a line, also while it is closed. */
  summary: React.ReactNode
  children: React.ReactNode
  defaultOpen?: boolean
}) {
  const key = `keen-quill-drawer-${id}`
  const [open, setOpen] = useState(() => {
    const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(key)
    return kept === null ? defaultOpen : kept === 'open'
  })
  return (
    <section className="border-t border-rule-2 first:border-t-0" data-testid={`drawer-${id}`}>
      <h2 className="font-sans">
        <button
          type="button"
          aria-expanded={open}
          aria-controls={`drawer-${id}`}
          className="flex w-full items-baseline gap-3 px-7 py-2.5 text-left max-[700px]:px-4"
          onClick={() => {
            localStorage.setItem(key, open ? 'closed' : 'open')
            setOpen(!open)
          }}
        >
          <span aria-hidden className="w-3 font-serif text-ink-3">
            {open ? '–' : '+'}
          </span>
          <span className="font-serif text-[16px] whitespace-nowrap">{title}</span>
          <span className="min-w-0 flex-1 truncate text-[13px] text-ink-2">{summary}</span>
        </button>
      </h2>
      <div id={`drawer-${id}`} hidden={!open} className="overflow-x-auto px-7 pb-5 max-[700px]:px-4">
        {open && children}
      </div>
    </section>
  )
}
