/** What may be typed into a field of a thing, by its control: Joi says what is wrong, in words that say what to do. */
import Joi from 'joi'
import {
  isAddress,
  isCurrency,
  isDate,
  isDateTime,
  isDuration,
  isNumber,
  isRelativeAddress,
  isTime,
} from '../../../core/structured-data/formats.ts'
import type { Control } from '../../workers/data-fields.ts'

const text = (is: (t: string) => boolean, says: string) =>
  Joi.string()
    .allow('')
    .custom((value: string, helpers) => (is(value.trim()) ? value : helpers.error('any.custom')))
    .messages({ 'any.custom': says })

const forms: Partial<Record<Control, Joi.StringSchema>> = {
  date: text((t) => isDate(t) || isDateTime(t), 'A date such as 2026-11-25 is expected.'),
  time: text(isTime, 'A time such as 19:30 is expected.'),
  duration: text(isDuration, 'A duration such as PT1H30M is expected.'),
  number: text(isNumber, 'A number is expected, with a point before the decimals.'),
  address: text(
    (t) => isAddress(t) || isRelativeAddress(t),
    'An address is expected, such as https://your-site.example/page.',
  ),
  image: text((t) => isAddress(t) || isRelativeAddress(t), 'The address of a picture is expected.'),
  currency: text(isCurrency, 'A currency’s code is expected, such as GBP.'),
}

/** Why a text is no value for a control; null where it is one. What is wrong is kept all the same: nothing typed is lost. */
export function whyWrong(control: Control, value: string, textWillDo: boolean): string | null {
  const form = forms[control]
  if (!form || value === '' || (textWillDo && control !== 'currency')) return null
  return form.validate(value).error?.message ?? null
}
