import type { Edit } from '../../../core/page/edits/draft.ts'
import { TypedLine } from '../../ui/typed-line.tsx'
import type { HeadAround } from './head-around.ts'
import { AddMeta, ExtraCode, Part, Row, rowKey } from './head-parts.tsx'

/** Metas without a place of their own on the sheet. */
export function MetasPart(around: HeadAround) {
  const { head, editOf, type, decide, show } = around
  const otherMetas = head.metas.filter(
    (m) => m.name !== 'viewport' && m.name !== 'robots' && m.name !== 'description',
  )

  return (
    <Part name="metas" title="Other metas" count={otherMetas.length}>
      {otherMetas.map((m, i) => (
        <Row
          key={rowKey(m, i)}
          label={m.name}
          start={m.start}
          onFocusPlace={show}
          mono
          note={m.inHead ? '' : 'in the body'}
        >
          {m.key === null ? (
            <span className="min-w-0 truncate">{m.content}</span>
          ) : (
            <TypedLine
              label={`Content of ${m.name}`}
              value={editOf(m.key)?.value ?? m.content}
              onType={(v) => type(m.key!, v, `Meta ${m.name}`)}
            />
          )}
          {m.key !== null && (
            <button
              type="button"
              className="quiet"
              onClick={() => decide(m.key!, { remove: true }, `Meta ${m.name} removed`)}
            >
              Remove
            </button>
          )}
        </Row>
      ))}
      <AddMeta onAdd={(name, content) => decide(`meta:${name}`, { value: content }, `Meta ${name}`)} />
    </Part>
  )
}

/** Links of the head, the canonical among them. */
export function LinksPart(around: HeadAround) {
  const { head, view, editOf, type, decide, show } = around
  return (
    <Part name="links" title="Links of the head" count={head.links.length}>
      {head.links.map((l, i) => (
        <Row
          key={rowKey(l, i)}
          label={l.rel || 'link'}
          start={l.start}
          onFocusPlace={show}
          mono
          note={l.inHead ? '' : 'in the body'}
        >
          {l.key === null || l.key.startsWith('new:') ? (
            <span className="min-w-0 truncate">{l.href}</span>
          ) : (
            <>
              <TypedLine
                label={`Address of ${l.rel}`}
                value={editOf(l.key)?.value ?? l.href}
                onType={(v) => type(l.key!, v, `Link ${l.rel}`)}
              />
              <button
                type="button"
                className="quiet"
                onClick={() => decide(l.key!, { remove: true }, `Link ${l.rel} removed`)}
              >
                Remove
              </button>
            </>
          )}
        </Row>
      ))}
      {!head.links.some((l) => l.rel === 'canonical') && (
        <Row label="canonical" mono>
          <TypedLine
            label="Canonical"
            value={editOf('canonical')?.value ?? ''}
            placeholder={view?.url ?? ''}
            onType={(v) =>
              v.trim() === ''
                ? decide('canonical', undefined, 'Canonical')
                : type('canonical', v.trim(), 'Canonical')
            }
          />
        </Row>
      )}
    </Part>
  )
}

/** What is added to the head as typed. */
export function CodePart(around: HeadAround) {
  const { decisions, type, decide } = around
  return (
    <Part name="code" title="Extra code for this page’s head">
      <ExtraCode
        added={Object.entries(decisions).flatMap(([k, v]) =>
          k.startsWith('edit:new:') ? [{ key: k.slice(5), value: (v as Edit).value ?? '' }] : [],
        )}
        onType={(key, value) =>
          value === '' ? decide(key, undefined, 'Extra code removed') : type(key, value, 'Extra code')
        }
      />
    </Part>
  )
}
