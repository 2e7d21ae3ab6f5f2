/** House style: the limits and severities that a site is judged by. Everything in it is the house's to change. */
import Joi from 'joi'
import { defaultSlots, type Slots } from '../measure/snippet.ts'

export type Severity = 'blocker' | 'flaw' | 'nit'
export const severities: Severity[] = ['blocker', 'flaw', 'nit']

export interface Limits {
  /** Graphemes. Common practice, no source. */
  titleLongest: number
  titleShortest: number
  descriptionShortest: number
  /** Words of main content in which the keyword should stand. Common practice, no source. */
  leadWords: number
}

export interface HouseStyle {
  /** The site's language as BCP 47, for pages that name none; null offers no repair. */
  language: string | null
  limits: Limits
  slots: Slots
  /** By rule id: another severity, or off. */
  rules: Readonly<Record<string, Severity | 'off'>>
}

export const defaultStyle: HouseStyle = {
  language: null,
  limits: { titleLongest: 65, titleShortest: 30, descriptionShortest: 70, leadWords: 100 },
  slots: defaultSlots,
  rules: {},
}

const px = Joi.number().positive().max(10_000)
const slot = Joi.object({
  column: px,
  size: Joi.number().integer().min(6).max(72),
  lines: Joi.number().integer().min(1).max(10),
  allowance: px,
  riskPx: px,
})
const role = Joi.object({ wide: slot, narrow: slot })
const count = Joi.number().integer().min(1).max(100_000)

export const languagePattern = /^[a-z]{2,3}(?:-[a-z0-9]{1,8})*$/i

export const houseStyleSchema = Joi.object({
  language: Joi.string().pattern(languagePattern, 'language tag').allow(null),
  limits: Joi.object({
    titleLongest: count,
    titleShortest: count,
    descriptionShortest: count,
    leadWords: count,
  }),
  slots: Joi.object({ title: role, description: role }),
  rules: Joi.object().pattern(Joi.string(), Joi.valid(...severities, 'off')),
})

/** A house style from a file or a store, what it leaves out filled with the defaults; or why it cannot be one. */
export function readHouseStyle(input: unknown): { ok: true; style: HouseStyle } | { ok: false; why: string } {
  const { value, error } = houseStyleSchema.validate(input)
  if (error) return { ok: false, why: `The house style cannot be read: ${error.message}.` }
  const given = value as Partial<HouseStyle>
  const merge = (which: 'title' | 'description') => ({
    wide: { ...defaultSlots[which].wide, ...given.slots?.[which]?.wide },
    narrow: { ...defaultSlots[which].narrow, ...given.slots?.[which]?.narrow },
  })
  return {
    ok: true,
    style: {
      language: given.language ?? null,
      limits: { ...defaultStyle.limits, ...given.limits },
      slots: { title: merge('title'), description: merge('description') },
      rules: given.rules ?? {},
    },
  }
}
