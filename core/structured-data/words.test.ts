import { describe, expect, it } from 'vitest'
import { features } from './features.ts'
import { asLabel, inWords, lackInWords } from './words.ts'

describe('names in words', () => {
  it('are split at capitals', () => {
    expect(inWords('datePublished')).toBe('date published')
    expect(inWords('vatID')).toBe('vat ID')
    expect(inWords('embedUrl')).toBe('embed URL')
    expect(asLabel('gtin13')).toBe('GTIN13')
    expect(asLabel('datePublished')).toBe('Date published')
    expect(asLabel('name')).toBe('Name')
    expect(asLabel('hasGS1DigitalLink')).toBe('Has gs1 digital link')
    expect(asLabel('https://words.example/lumen')).toBe('https://words.example/lumen')
  })
})
describe('what is missing, in words', () => {
  it('says whose it is, and what would do instead', () => {
    expect(lackInWords('provider')).toBe('provider')
    expect(lackInWords('offers|review|aggregateRating')).toBe('offers, review or aggregate rating')
    expect(lackInWords('location.address')).toBe('address of the location')
    expect(lackInWords('offers.priceCurrency|offers.priceSpecification')).toBe(
      'price currency or price specification of the offers',
    )
    expect(lackInWords('a.b.c|d')).toBe('c of the b of the a or d')
    const asked = JSON.stringify(features).match(/"(?:required|recommended|alone)":\[[^\]]*\]/g)!
    for (const path of asked.flatMap((list) => list.match(/"[^"]+"/g)!.slice(1)))
      expect(lackInWords(JSON.parse(path) as string), path).toMatch(/^[a-zA-Z]+[a-zA-Z\d, ]*$/)
  })
})
