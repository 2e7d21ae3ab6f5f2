/**
 * A draft: what the editor decided for one page, one edit for each target. A plain value that can be stored and sent.
 *
 * Keys: `slug` (see site/moves.ts), `title`, `meta:description`, `meta:robots`, `canonical`, `lang`, `charset`, and with the place of the
 * element's start tag in the source's bytes `heading@812`, `jsonld@1200`, `title@90`, `meta:description@140`;
 * `text@` a block of running text, `after@` what is put in behind one, `block@` a paragraph or div that becomes a heading, `alt@` an image's alternative text, `id@` an id, `link@` a link of
 * the head, `comment@` a comment, `new:<name>` markup put at the end of the head, `data:<name>` a JSON-LD block put
 * there, `doctype`, `skip` a skip link.
 */
import Joi from 'joi'
import { newBlockKinds, type NewBlock } from '../text/insertion.ts'

export interface Edit {
  /** The new text: of a title, a content, an address, a heading, a whole JSON-LD block. Plain text, unescaped. */
  value?: string
  /** A heading's new level, 1 to 6. */
  level?: number
  /** Of a heading: it becomes a paragraph, its attributes kept. */
  tag?: 'p'
  /** Start byte of the heading right above that this one is the subtitle of: both stand in an `hgroup`, this one as a paragraph. */
  hgroup?: number
  /** Start bytes of the adjacent headings that are joined to this one, each becoming a span in it. */
  merge?: number[]
  /** Of a block of text: links put round words of it, each round the nth occurrence, from 0, of its phrase. */
  links?: { phrase: string; nth: number; href: string }[]
  /** Of a block of text: links that are taken away, by the byte of their start tag; their words stay. */
  unlink?: number[]
  /** New blocks that stand behind a block of text, in their order. */
  blocks?: NewBlock[]
  /** Takes the element out. */
  remove?: true
  /** Of a JSON-LD block: what was built from the page, and which of its values follow the page's text. */
  built?: {
    kind: string
    /** By JSON pointer, as what and from where in the source the value was found: `question@812`, or `site`. */
    links: Readonly<Record<string, string>>
  }
  /** Of a slug: the folder's page moves without the pages under it. */
  alone?: true
}
export type TargetKey = string
export type Draft = Readonly<Record<TargetKey, Edit>>

/** What a person may type into one field: long enough for any title, short enough not to be a whole page. */
const LONGEST_VALUE = 200_000

export const editSchema = Joi.object<Edit>({
  value: Joi.string().allow('').max(LONGEST_VALUE),
  level: Joi.number().integer().min(1).max(6),
  tag: Joi.valid('p'),
  hgroup: Joi.number().integer().min(0),
  merge: Joi.array().items(Joi.number().integer().min(0)).max(50),
  links: Joi.array()
    .items(
      Joi.object({
        phrase: Joi.string().max(1000).required(),
        nth: Joi.number().integer().min(0).max(100_000).required(),
        href: Joi.string().max(10_000).required(),
      }),
    )
    .max(15),
  unlink: Joi.array().items(Joi.number().integer().min(0)).max(200),
  blocks: Joi.array()
    .items(
      Joi.object({
        id: Joi.string()
          .pattern(/^[a-z0-9]{1,12}$/)
          .required(),
        kind: Joi.valid(...newBlockKinds).required(),
        text: Joi.string().allow('').max(LONGEST_VALUE).required(),
        answer: Joi.string().allow('').max(LONGEST_VALUE),
      }),
    )
    .unique('id')
    .max(60),
  remove: Joi.valid(true),
  alone: Joi.valid(true),
  built: Joi.object({
    kind: Joi.string().max(60).required(),
    links: Joi.object().pattern(Joi.string().allow('').max(400), Joi.string().max(400)).required(),
  }),
}).min(1)

export const targetKeyPattern =
  /^(?:title(?:@\d+)?|meta:[a-z0-9:._-]+(?:@\d+)?|canonical(?:@\d+)?|lang|charset|doctype|skip|slug|(?:heading|jsonld|block|text|after|alt|id|link|comment)@\d+|(?:new|data):[a-z0-9-]+)$/

/** A new edit over the one that a target has: what a heading becomes is decided once, headings joined to it add up. */
export function overEdit(now: Edit | undefined, edit: Edit): Edit {
  const { level: _l, tag: _t, hgroup: _h, ...rest } = now ?? {}
  const kind = edit.level !== undefined || edit.tag !== undefined || edit.hgroup !== undefined
  const below = kind ? rest : (now ?? {})
  return { ...below, ...edit, ...(edit.merge ? { merge: [...(now?.merge ?? []), ...edit.merge] } : {}) }
}

/** A key's kind, name and byte: `meta:description@140` → meta, description, 140. */
export function parseKey(key: TargetKey): { kind: string; name: string; at: number | null } {
  const [, kind, name, at] = /^([a-z]+)(?::([^@]+))?(?:@(\d+))?$/.exec(key) ?? []
  return { kind: kind ?? '', name: name ?? '', at: at === undefined ? null : Number(at) }
}
