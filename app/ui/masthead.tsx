import { useState } from 'react'
import { Link } from 'react-router'
import { runCommand } from './command-registry.ts'

/** Light or dark; at first, what the system asks for. */
function ThemeSwitch() {
  const [, again] = useState(0)
  const dark = () =>
    document.documentElement.dataset.theme === 'dark' ||
    (!document.documentElement.dataset.theme && matchMedia('(prefers-color-scheme: dark)').matches)
  return (
    <button
      type="button"
      className="hover:text-ink"
      onClick={() => {
        const theme = dark() ? 'light' : 'dark'
        document.documentElement.dataset.theme = theme
        localStorage.setItem('keen-quill-theme', theme)
        again((n) => n + 1)
      }}
    >
      Light or dark
    </button>
  )
}

/** The newspaper's head: our name, the site's, its sections as words, and what is always at hand. */
export function Masthead({
  site,
  sections,
  children,
}: {
  site?: string
  sections?: React.ReactNode
  children?: React.ReactNode
}) {
  return (
    <header className="sticky top-0 z-20 flex h-[52px] items-center gap-5 border-b border-ink bg-paper px-6 max-[700px]:static max-[700px]:h-auto max-[700px]:flex-wrap max-[700px]:gap-x-4 max-[700px]:gap-y-1 max-[700px]:px-4 max-[700px]:py-2">
      <Link to="/" className="font-serif text-[20px] font-semibold whitespace-nowrap">
        Keen Quill
      </Link>
      {site && (
        <span className="max-w-56 min-w-12 truncate font-serif text-[17px] text-ink-2 italic">{site}</span>
      )}
      {sections}
      <div className="ml-auto flex items-center gap-4 [&_kbd]:max-[1440px]:hidden max-[700px]:ml-0 max-[700px]:flex-wrap max-[700px]:gap-3 text-[13px] whitespace-nowrap text-ink-2">
        {children}
        <ThemeSwitch />
        <button
          type="button"
          className="hover:text-ink max-[1180px]:hidden"
          onClick={() => runCommand('palette')}
        >
          Go to <kbd>Ctrl K</kbd>
        </button>
        <button type="button" className="hover:text-ink" onClick={() => runCommand('guide')}>
          Guide <kbd>F1</kbd>
        </button>
        <button type="button" className="hover:text-ink" onClick={() => runCommand('help')}>
          Keys <kbd>?</kbd>
        </button>
      </div>
    </header>
  )
}
