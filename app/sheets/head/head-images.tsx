import { useEffect, useRef, useState } from 'react'
import { core } from '../../workers/client.ts'
import type { HeadView } from '../../workers/structure.ts'
import { rowKey } from './head-parts.tsx'
import { TypedLine } from '../../ui/typed-line.tsx'

type Image = HeadView['images'][number]
/** So many pictures are listed at once. */
const LISTED = 150

/** Every picture with its alternative text, typed in place; Enter and the arrows go from one to the next. */
export function HeadImages({
  images,
  valueOf,
  onType,
  onLook,
}: {
  images: Image[]
  valueOf(key: string): string | undefined
  onType(key: string, value: string): void
  onLook(start: number): void
}) {
  const [missing, setMissing] = useState(false)
  const [most, setMost] = useState(LISTED)
  const list = useRef<HTMLUListElement>(null)
  if (images.length === 0) return <p className="text-[13px] text-ink-2">The page has no pictures.</p>
  const without = images.filter((i) => i.alt === null && !i.hidden)
  const shown = missing ? without : images
  function go(from: HTMLElement, by: number) {
    const fields = [...(list.current?.querySelectorAll<HTMLInputElement>('input') ?? [])]
    const next = fields[fields.indexOf(from as HTMLInputElement) + by]
    next?.focus()
    next?.select()
  }
  return (
    <>
      {images.length > 3 && (
        <label className="mb-1 flex items-baseline gap-2 text-[13px] text-ink-2">
          <input type="checkbox" checked={missing} onChange={(e) => setMissing(e.target.checked)} />
          only those without an alternative text ({without.length})
        </label>
      )}
      <ul ref={list}>
        {shown.slice(0, most).map((image, index) => (
          <li
            key={rowKey(image, index)}
            data-start={image.start}
            className="flex items-center gap-3 py-1"
            onFocus={() => onLook(image.start)}
          >
            <Thumbnail file={image.file} />
            <span className="min-w-0 flex-1 text-[13px]">
              <span className="block truncate text-[12px] text-ink-3" title={image.src}>
                {image.src.startsWith('data:') ? 'an embedded picture' : image.src || 'no address'}
                {image.hidden && ' · hidden from screen readers'}
              </span>
              <TypedLine
                label={`Alternative text of ${image.src.slice(0, 80) || 'a picture'}, line ${image.line}`}
                value={(image.key && valueOf(image.key)) ?? image.alt ?? ''}
                placeholder={image.alt === null ? 'no alt: say what it shows' : 'empty: decorative'}
                onType={(v) => image.key && onType(image.key, v)}
                onKeyDown={(e) => {
                  const by = { Enter: e.shiftKey ? -1 : 1, ArrowDown: 1, ArrowUp: -1 }[e.key]
                  if (by === undefined) return
                  e.preventDefault()
                  go(e.currentTarget, by)
                }}
              />
            </span>
          </li>
        ))}
      </ul>
      {shown.length > most && (
        <button type="button" className="quiet mt-1 text-[13px]" onClick={() => setMost(most + LISTED)}>
          {shown.length - most} more
        </button>
      )}
      {images.length > 1 && (
        <p className="mt-1 text-[12px] text-ink-3">
          <kbd>Enter</kbd> or <kbd>↓</kbd> to the next picture, <kbd>↑</kbd> back
        </p>
      )}
    </>
  )
}

/** The picture itself where the site has the file, loaded when it comes into view. */
function Thumbnail({ file }: { file: string | null }) {
  const box = useRef<HTMLSpanElement>(null)
  const [url, setUrl] = useState<string | null>(null)
  useEffect(() => {
    if (file === null || !box.current) return
    let gone = false
    let made: string | null = null
    const observer = new IntersectionObserver(([entry]) => {
      if (!entry?.isIntersecting) return
      observer.disconnect()
      void core()
        .pictureOf(file)
        .then((picture) => {
          if (!picture || gone) return
          made = URL.createObjectURL(new Blob([picture.bytes as BlobPart], { type: picture.type }))
          setUrl(made)
        })
    })
    observer.observe(box.current)
    return () => {
      gone = true
      observer.disconnect()
      if (made) URL.revokeObjectURL(made)
    }
  }, [file])
  return (
    <span ref={box} className="grid h-9 w-14 shrink-0 place-items-center border border-rule-2 bg-paper-2">
      {url ? (
        <img src={url} alt="" className="max-h-9 max-w-14" />
      ) : (
        <span className="text-[11px] text-ink-3">{file === null ? 'not here' : ''}</span>
      )}
    </span>
  )
}
