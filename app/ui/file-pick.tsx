import { useRef } from 'react'

/** A word that opens the browser's file picker and hands over the file that was chosen. */
export function FilePick({
  children,
  label,
  accept,
  title,
  testId,
  onFile,
}: {
  children: React.ReactNode
  /** What the file is, for those who do not see the word. */
  label: string
  accept: string
  title?: string
  testId: string
  onFile(file: File): void
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <button type="button" className="quiet" title={title} onClick={() => input.current?.click()}>
        {children}
      </button>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={label}
        data-testid={testId}
        onChange={(e) => {
          const file = e.target.files?.[0]
          if (file) onFile(file)
          // The same file may be chosen again.
          e.target.value = ''
        }}
      />
    </>
  )
}
