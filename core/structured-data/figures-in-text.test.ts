/** What a page says in words, as data writes it. The forms are ISO 8601's; the wordings are common practice, no source. */
import { describe, expect, it } from 'vitest'
import { dateIn, durationIn, hoursIn, pricesIn, timesIn } from './figures-in-text.ts'
import { isDate, isDateTime, isDuration, isGtin, isIsbn, isOpeningHours, isTime } from './formats.ts'

describe('dates', () => {
  it.each([
    ['Friday 4 December 2026, 17:00', 'en', '2026-12-04'],
    ['Published 14th September 2026', 'en', '2026-09-14'],
    ['September 14, 2026', 'en', '2026-09-14'],
    ['den 1. december 2026', 'da', '2026-12-01'],
    ['3. März 2027', 'de', '2027-03-03'],
    ['on 2026-11-25 at noon', 'en', '2026-11-25'],
    ['31 February 2026', 'en', null],
    ['04/05/2026', 'en', null],
    ['in December', 'en', null],
    ['Chapter 4 May 2026', 'en', '2026-05-04'],
  ])('%s in %s', (text, lang, date) => expect(dateIn(text, lang)).toBe(date))
})
describe('times of day', () => {
  it.each([
    ['17:00 to 21:00', ['17:00', '21:00']],
    ['from 5 pm until 7.30 p.m.', ['17:00', '19:30']],
    ['12 am', ['00:00']],
    ['£12.50 each', []],
    ['at half past', []],
    ['13 pm', []],
  ])('%s', (text, times) => expect(timesIn(text)).toEqual(times))
})
describe('durations', () => {
  it.each([
    ['10 minutes', 'PT10M'],
    ['1 hour 30 minutes', 'PT1H30M'],
    ['half an hour', 'PT30M'],
    ['1½ hours', 'PT1H30M'],
    ['an hour and twenty minutes', 'PT1H20M'],
    ['2 days', 'P2D'],
    ['90 min', 'PT1H30M'],
    ['a while', null],
  ])('%s', (text, duration) => {
    expect(durationIn(text)).toBe(duration)
    if (duration) expect(isDuration(duration)).toBe(true)
  })
})
describe('prices', () => {
  it.each([
    ['£85', 'en', [{ amount: '85', currency: 'GBP' }]],
    ['€ 1.250,50 pro Nacht', 'de', [{ amount: '1250.50', currency: 'EUR' }]],
    ['$1,250', 'en', [{ amount: '1250', currency: 'USD' }]],
    ['80 kr. pr. person', 'da', [{ amount: '80', currency: 'DKK' }]],
    [
      '£4 or £16',
      'en',
      [
        { amount: '4', currency: 'GBP' },
        { amount: '16', currency: 'GBP' },
      ],
    ],
    ['kr 80', 'en', []],
    ['85 pounds', 'en', []],
  ])('%s', (text, lang, prices) => expect(pricesIn(text, lang)).toEqual(prices))
})
describe('opening hours', () => {
  it.each([
    [
      'Monday to Friday 9.00–16.00',
      { days: ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday'], opens: '09:00', closes: '16:00' },
    ],
    ['Sat 10:00-13:00', { days: ['Saturday'], opens: '10:00', closes: '13:00' }],
    ['Mon, Wed 10 am – 4 pm', { days: ['Monday', 'Wednesday'], opens: '10:00', closes: '16:00' }],
    [
      'Daily 9:00–17:00',
      {
        days: ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'],
        opens: '09:00',
        closes: '17:00',
      },
    ],
    ['The boat leaves at 10:00', null],
    ['Monday', null],
  ])('%s', (text, hours) => expect(hoursIn(text, 'en')).toEqual(hours))
})

describe('forms', () => {
  it('of ISO 8601, by the standard’s and RFC 3339’s own examples', () => {
    // RFC 3339, 5.8: the first three are the document's examples; the leap second is one of them.
    for (const ok of [
      '1985-04-12T23:20:50.52Z',
      '1996-12-19T16:39:57-08:00',
      '1990-12-31T23:59:60Z',
      '1937-01-01T12:00:27.87+00:20',
    ])
      expect(isDateTime(ok)).toBe(true)
    for (const ok of ['2026', '2026-11', '2026-11-25', '20261125', '2024-02-29', '2026-W48-3', '2026-329'])
      expect(isDate(ok)).toBe(true)
    for (const no of ['2026-13-01', '2025-02-29', '25-11-2026', '2026-11-25T25:00', '', 'today', '2026-W54'])
      expect(isDate(no) || isDateTime(no)).toBe(false)
    for (const ok of ['PT1H30M', 'P1DT12H', 'P3Y6M4DT12H30M5S', 'P4W', 'PT0.5H'])
      expect(isDuration(ok)).toBe(true)
    for (const no of ['P', 'PT', 'P1H', '1H30M', 'PT1H30', 'P1DT']) expect(isDuration(no)).toBe(false)
    for (const ok of ['19:30', '19:30:00', '24:00', '07:05:00+01:00']) expect(isTime(ok)).toBe(true)
    for (const no of ['9:30', '19.30', '25:00', '24:01', 'noon']) expect(isTime(no)).toBe(false)
  })
  it('of check digits: from memory, the examples that GS1 and the ISBN manual print', () => {
    for (const ok of ['4006381333931', '629104150021' + '3', '96385074']) expect(isGtin(ok)).toBe(true)
    for (const no of ['4006381333930', '123', '', 'abcdefgh']) expect(isGtin(no)).toBe(false)
    for (const ok of ['978-0-306-40615-7', '0-306-40615-2', '0-8044-2957-X']) expect(isIsbn(ok)).toBe(true)
    for (const no of ['978-0-306-40615-8', '0-306-40615-3', '']) expect(isIsbn(no)).toBe(false)
  })
  it('of opening hours, as schema.org writes them', () => {
    // schema.org, openingHours: "Mo,Tu,We,Th 09:00-12:00", "Mo-Su", "Tu,Th 16:00-20:00".
    for (const ok of [
      'Mo,Tu,We,Th 09:00-12:00',
      'Mo-Su',
      'Tu,Th 16:00-20:00',
      'Mo-Fr 09:00-12:00,13:00-17:00',
    ])
      expect(isOpeningHours(ok)).toBe(true)
    for (const no of ['Monday 9-5', 'Mo-Fr 9:00-17:00', '', 'Mo 09:00'])
      expect(isOpeningHours(no)).toBe(false)
  })
})
