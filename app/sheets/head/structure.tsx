import { landmarkNames } from '../../ui/landmark-names.ts'
import { TypedLine } from '../../ui/typed-line.tsx'
import { MainFound } from '../main-content-found.tsx'
import type { HeadAround } from './head-around.ts'
import { HeadImages } from './head-images.tsx'
import { LineButton, Part, Row, rowKey } from './head-parts.tsx'

/** Landmarks, the skip link, and where the main content stands. */
export function LandmarksPart(around: HeadAround) {
  const { head, session, editOf, decide, show } = around
  return (
    <Part name="landmarks" title="Landmarks" count={head.landmarks.length}>
      {head.landmarks.length === 0 && (
        <p className="text-[13px] text-ink-2">
          None. People who use screen readers jump between header, nav, main, aside and footer.
        </p>
      )}
      <ul>
        {head.landmarks.map((l) => (
          <li key={l.start} data-start={l.start} className="flex items-baseline gap-3 py-0.5">
            <span className="w-28 font-serif italic">{landmarkNames[l.landmark]}</span>
            <span className="min-w-0 flex-1 truncate text-[13px] text-ink-2">
              {l.label}
              {l.hidden && ' hidden'}
            </span>
            <LineButton line={l.line} onClick={() => show(l.start)} />
          </li>
        ))}
      </ul>
      <p className="mt-1 text-[13px] text-ink-2">
        {editOf('skip')
          ? 'A skip link has been added.'
          : head.skipLink
            ? 'The page has a skip link.'
            : 'The page has no skip link.'}{' '}
        {editOf('skip') ? (
          <button
            type="button"
            className="quiet"
            onClick={() => decide('skip', undefined, 'Skip link removed')}
          >
            Remove
          </button>
        ) : (
          !head.skipLink && (
            <button
              type="button"
              className="action"
              onClick={() => decide('skip', { value: 'Skip to main content' }, 'Skip link')}
            >
              Add one
            </button>
          )
        )}
      </p>
      <MainFound session={session} by={head.mainBy} words={head.mainWords} />
    </Part>
  )
}

/** Pictures and their alternative texts. */
export function ImagesPart(around: HeadAround) {
  const { head, editOf, type, show } = around
  return (
    <Part name="images" title="Pictures" count={head.images.length}>
      <HeadImages
        images={head.images}
        valueOf={(key) => editOf(key)?.value}
        onType={(key, value) => type(key, value, 'Alternative text')}
        onLook={show}
      />
    </Part>
  )
}

/** Ids that repeat, comments, and markup that is broken. */
export function BrokenPart(around: HeadAround) {
  const { head, editOf, type, decide, show } = around
  return (
    <Part
      name="broken"
      title="Ids, comments, broken markup"
      count={head.repeatedIds.length + head.comments.length + head.errors.length}
    >
      {head.repeatedIds.map((i, at) => (
        <Row key={rowKey(i, at)} label={`id, ${i.count} times`} start={i.start} onFocusPlace={show}>
          <TypedLine
            label={`Id ${i.id}, line ${i.line}`}
            value={(i.key && editOf(i.key)?.value) ?? i.id}
            wrong={(v) => (/\s/.test(v) || v === '' ? 'An id has no spaces and is not empty.' : null)}
            onType={(v) => i.key && type(i.key, v, 'Id')}
          />
          <LineButton line={i.line} onClick={() => show(i.start)} />
        </Row>
      ))}
      <ul>
        {head.comments.slice(0, 100).map((c, i) => (
          <li key={rowKey(c, i)} data-start={c.start} className="flex items-baseline gap-3 py-0.5">
            <span className="w-28 text-[13px] text-ink-2">comment</span>
            <span className="min-w-0 flex-1 truncate text-[13px]" title={c.text}>
              {c.text} {c.what && <em className="text-ink-2">({c.what})</em>}
            </span>
            {c.key && (
              <button
                type="button"
                className="quiet text-[13px]"
                onClick={() => decide(c.key!, { remove: true }, 'Comment removed')}
              >
                Remove
              </button>
            )}
            <LineButton line={c.line} onClick={() => show(c.start)} />
          </li>
        ))}
        {head.errors.slice(0, 100).map((e, i) => (
          <li key={`e${i}`} data-start={e.start} className="flex items-baseline gap-3 py-0.5">
            <span className="w-28 text-[13px] text-ink-2">broken</span>
            <span className="min-w-0 flex-1 truncate text-[13px]">{e.code.replace(/-/g, ' ')}</span>
            <LineButton line={e.line} onClick={() => show(e.start)} />
          </li>
        ))}
      </ul>
      {head.errors.length > 100 && (
        <p className="text-[13px] text-ink-2">and {head.errors.length - 100} more</p>
      )}
      {head.repeatedIds.length + head.comments.length + head.errors.length === 0 && (
        <p className="text-[13px] text-ink-2">
          Every id is unique, no comments are left over, and nothing is broken.
        </p>
      )}
    </Part>
  )
}
