/** The guide's sections, one open at a time; loaded when the guide is. */
import { useEffect, useRef, useState } from 'react'
import Markdown, { type Components } from 'react-markdown'
import { useLocation } from 'react-router'
import { findSections, guide } from './guide.ts'
import { viewAt, views } from './views.ts'

const components: Components = {
  p: ({ children }) => <p className="mt-2">{children}</p>,
  ul: ({ children }) => <ul className="mt-2 list-disc pl-5 [&>li]:mt-1">{children}</ul>,
  em: ({ children }) => <em className="font-serif">{children}</em>,
  code: ({ children }) => (
    <code className="bg-paper-2 px-1 font-mono text-[12px] [overflow-wrap:anywhere]">{children}</code>
  ),
}

const elements = ['p', 'ul', 'ol', 'li', 'em', 'strong', 'code', 'br']

export default function GuideSections() {
  const { pathname, search } = useLocation()
  const view = viewAt(pathname, search)
  const [typed, setTyped] = useState('')
  const [chosen, setChosen] = useState<{ heading: string; at: typeof view } | null>(null)
  const matching = findSections(guide, typed)
  // Another view is another section, unless one is being looked for.
  const first = typed === '' && view ? views[view].section : matching[0]?.heading
  const open = chosen?.at === view ? chosen.heading : first
  const list = useRef<HTMLDivElement>(null)
  const field = useRef<HTMLInputElement>(null)
  useEffect(() => field.current?.focus(), [])
  useEffect(() => {
    list.current?.querySelector('[aria-expanded=true]')?.scrollIntoView({ block: 'start' })
  }, [open])
  return (
    <>
      <div className="border-b border-rule px-6 pb-3">
        <label className="mt-2 flex items-baseline gap-3 text-[13px] text-ink-2">
          Find
          <input
            ref={field}
            type="search"
            className="field"
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value)
              setChosen(null)
            }}
          />
        </label>
        <p role="status" className="sr-only">
          {typed !== '' && `${matching.length} of ${guide.length} sections`}
        </p>
      </div>
      <div ref={list} className="flex-1 overflow-y-auto px-6 py-3" data-testid="guide">
        {matching.length === 0 && (
          <p className="py-2 text-ink-2">
            The guide does not mention “{typed}”. Try one word, or clear the field to see all sections.
          </p>
        )}
        {matching.map(({ heading, text }) => (
          <section key={heading} className="border-b border-rule-2 last:border-b-0">
            <h3 className="font-serif text-[17px]">
              <button
                type="button"
                className="flex w-full scroll-mt-2 items-baseline gap-3 py-2 text-left"
                aria-expanded={heading === open}
                onClick={() => setChosen({ heading: heading === open ? '' : heading, at: view })}
              >
                <span aria-hidden className="w-3 text-ink-3">
                  {heading === open ? '–' : '+'}
                </span>
                {heading}
              </button>
            </h3>
            {heading === open && (
              <div className="pb-4 pl-6 text-[14px] leading-6">
                <Markdown components={components} allowedElements={elements}>
                  {text}
                </Markdown>
              </div>
            )}
          </section>
        ))}
      </div>
    </>
  )
}
