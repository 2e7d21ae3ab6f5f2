/** A new block, typed before it is put in: a paragraph, a heading, a list entry, or a question with its answer. */
import { useId, useState } from 'react'
import type { NewBlock, NewBlockKind } from '../../../core/page/text/insertion.ts'
import { newBlockKinds } from '../../../core/page/text/insertion.ts'

export const kindNames: Record<NewBlockKind, string> = {
  p: 'a paragraph',
  h2: 'a heading (H2)',
  h3: 'a heading (H3)',
  h4: 'a heading (H4)',
  h5: 'a heading (H5)',
  h6: 'a heading (H6)',
  li: 'a list entry',
  question: 'a question with its answer',
}

/** What a new block begins as: a question that is to be answered has its text. */
export interface FirstBlock {
  kind: NewBlockKind
  text: string
}

export function NewBlockForm({
  first,
  lang,
  onPutIn,
  onCancel,
}: {
  first: FirstBlock
  lang: string | null
  onPutIn(block: Omit<NewBlock, 'id'>): void
  onCancel(): void
}) {
  const id = useId()
  const [kind, setKind] = useState(first.kind)
  const [text, setText] = useState(first.text)
  const [answer, setAnswer] = useState('')
  const isQuestion = kind === 'question'
  const isWhole = text.trim() !== '' && (!isQuestion || answer.trim() !== '')
  const putIn = () =>
    isWhole && onPutIn({ kind, text: text.trim(), ...(isQuestion ? { answer: answer.trim() } : {}) })
  const keys = (event: React.KeyboardEvent) => {
    if (event.key === 'Escape') {
      event.preventDefault()
      onCancel()
    } else if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault()
      putIn()
    }
  }
  const field =
    'block field-sizing-content w-full resize-none border-l-2 border-quill bg-paper-2 pl-3 font-serif text-[17px] leading-7'
  return (
    <form
      className="my-2 ml-16"
      data-testid="new-block"
      onKeyDown={keys}
      onSubmit={(event) => {
        event.preventDefault()
        putIn()
      }}
    >
      <p className="flex items-baseline gap-3 pb-1 text-[13px]">
        <label htmlFor={`${id}-kind`}>Insert</label>
        <select
          id={`${id}-kind`}
          className="border-b border-sign bg-paper"
          value={kind}
          onChange={(e) => setKind(e.target.value as NewBlockKind)}
        >
          {newBlockKinds.map((k) => (
            <option key={k} value={k}>
              {kindNames[k]}
            </option>
          ))}
        </select>
      </p>
      <textarea
        autoFocus={first.text === ''}
        aria-label={isQuestion ? 'The question' : 'The new text'}
        className={field}
        lang={lang ?? undefined}
        rows={1}
        value={text}
        spellCheck
        onChange={(e) => setText(e.target.value)}
      />
      {isQuestion && (
        <textarea
          autoFocus={first.text !== ''}
          aria-label="Its answer"
          placeholder="Its answer"
          className={`${field} mt-1`}
          lang={lang ?? undefined}
          rows={2}
          value={answer}
          spellCheck
          onChange={(e) => setAnswer(e.target.value)}
        />
      )}
      <p className="mt-1 flex items-baseline gap-4 text-[13px]">
        <button type="submit" className="action" disabled={!isWhole}>
          Insert it <kbd>Ctrl Enter</kbd>
        </button>
        <button type="button" className="quiet" onClick={onCancel}>
          Cancel <kbd>Esc</kbd>
        </button>
        {isQuestion && <span className="text-ink-3">written as this page writes its questions</span>}
      </p>
    </form>
  )
}
