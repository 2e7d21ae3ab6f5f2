import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { casings, namesIn, toCasing, type Casing } from './casing.ts'

/** The manuals' worked examples, from memory, each with its rule; they are cased from small letters, names aside. */
type Worked = [rule: string, title: string, typed?: string]

// The Chicago Manual of Style, 17th edition, 8.159 and 8.161.
const chicago: Worked[] = [
  [
    'major words, verbs and conjunctions but the five',
    'Mnemonics That Work Are Better Than Rules That Do Not',
  ],
  ['a subordinating conjunction is a major word', 'Singing While You Work'],
  ['article first; articles within small', 'A Little Learning Is a Dangerous Thing'],
  ['coordinating conjunction small', 'Tired but Happy'],
  ['“as” is small in any function', 'The Editor as Anonymous Assistant'],
  [
    'prepositions small whatever their length',
    'Four Theories concerning the Gospel according to Matthew',
    'four theories concerning the gospel according to Matthew',
  ],
  ['adverbs of phrasal verbs are major', 'Taking Down Names, Spelling Them Out, and Typing Them Up'],
  ['adverbs of phrasal verbs are major', 'Turn On, Tune In, and Enjoy'],
  ['a preposition after a verb that it does not belong to', 'Sitting on the Floor in an Empty Room'],
  ['a preposition used as an adjective', 'The On Button'],
  ['an adverb at the end', 'Look Up'],
  ['“to” of an infinitive is small', 'How to Learn to Sail'],
  ['a Latin expression is capitalised as one', 'Progress in In Vitro Fertilization'],
  [
    'species: the second part small, as the house writes it',
    'From Homo erectus to Homo sapiens: A Brief History',
  ],
  [
    'parts of names stay small; first word of a subtitle',
    'Defenders of da Vinci Fail the Test: The Name Is Leonardo',
    'defenders of da Vinci fail the test: the name is leonardo',
  ],
  ['first and last word whatever they are', 'Of Mice and Men'],
  ['last word whatever it is', 'The World We Live In'],
  [
    'hyphens: articles and prepositions within small',
    'Under-the-Counter Transactions and Out-of-Fashion Initiatives',
  ],
  [
    'hyphens: conjunction within small',
    'Bed-and-Breakfast Options in Upstate New York',
    'bed-and-breakfast options in upstate New York',
  ],
  ['hyphens: both parts', 'Record-Breaking Borrowings from Medium-Sized Libraries'],
  ['hyphens: both parts', 'Cross-Stitching for Beginners'],
  [
    'hyphens: an adverb as the last part',
    'A History of the Chicago Lying-In Hospital',
    'a history of the Chicago lying-in hospital',
  ],
  ['hyphens: flat and sharp small behind a key', 'The E-flat Concerto', 'the E-flat concerto'],
  ['hyphens: self- stands alone', 'Self-Sustaining Reactions'],
  ['hyphens: a prefix that cannot stand alone', 'Anti-intellectual Pursuits'],
  [
    'hyphens: a fraction',
    'A Two-Thirds Majority of Non-English-Speaking Representatives',
    'a two-thirds majority of non-English-speaking representatives',
  ],
  ['hyphens: a number spelled out', 'Ninety-Fifth Avenue Blues'],
  ['hyphens: a number spelled out in a compound', 'Atari’s Twenty-First-Century Adherents'],
]
// The Associated Press Stylebook, "composition titles" and "titles"; titles of works are its examples.
const ap: Worked[] = [
  ['“to” of an infinitive is capitalised', 'What I Want To Be When I Grow Up'],
  ['“to” of an infinitive; both parts of a phrasal verb', 'What To Look For in a Mate'],
  ['both parts of a phrasal verb', 'Turn Off the Lights in Silence'],
  ['a preposition of four letters or more', 'Gone With the Wind'],
  ['a preposition of four letters or more', 'The Old Man From the Sea'],
  ['prepositions and articles of fewer than four letters', 'The Star-Spangled Banner'],
  ['a preposition of fewer than four letters', 'The Rise and Fall of the Third Reich'],
  ['conjunction of fewer than four letters', 'War and Peace'],
  ['an article at the beginning', 'A Tale of Two Cities'],
  ['a preposition at the beginning', 'Of Mice and Men'],
  ['a preposition at the end', 'The World We Live In'],
  ['“to” as a preposition is small', 'A Guide to the Tides'],
  ['a preposition of four letters', 'Letters Into Space'],
  ['a conjunction of four letters', 'Better Late Than Never'],
  ['verbs whatever their length', 'All Is Well: This Is It'],
  ['first word after a colon', 'Night Walk: The Lamp and the Sea'],
]
// The Chicago Manual of Style, 17th edition, 8.158: first word of title and subtitle, and proper names.
const sentence: Worked[] = [
  [
    'first word and names',
    'The house of Rothschild: The world’s banker',
    'The House of Rothschild: the World’s Banker',
  ],
  ['first word only', 'Seeing is believing', 'Seeing Is Believing'],
  ['names of peoples and places by the list', 'A history of Scottish lights', 'A History of Scottish Lights'],
  ['the pronoun', 'What I want to be when I grow up', 'What I Want To Be When I Grow Up'],
  ['hyphens: the first part alone', 'Bed-and-breakfast options', 'Bed-and-Breakfast Options'],
  ['an abbreviation stays', 'How NASA reads the tides', 'How NASA Reads the Tides'],
]

const options = { protectedWords: ['Homo erectus', 'Homo sapiens', 'Rothschild', 'Third Reich'] }
const styles: [Casing, Worked[]][] = [
  ['chicago', chicago],
  ['ap', ap],
  ['sentence', sentence],
]

describe.each(styles)('%s', (style, worked) => {
  it.each(worked)('%s: %s', (_, title, typed = title.toLowerCase()) => {
    expect(toCasing(typed, style, options)).toBe(title)
    // What is right stays right, whatever it was typed like.
    expect(toCasing(title, style, options)).toBe(title)
  })
})

describe('any style', () => {
  it('sets a title in capitals throughout anew', () => {
    expect(toCasing('OPENING TIMES OF THE LIGHT', 'ap')).toBe('Opening Times of the Light')
    expect(toCasing('OPENING TIMES OF THE LIGHT', 'sentence')).toBe('Opening times of the light')
  })
  it('keeps the house’s own writing, whatever stands around', () => {
    const house = { protectedWords: ['eBuoy', 'via', 'Farrowskerry Light'] }
    expect(toCasing('ebuoy charts VIA boat | farrowskerry light', 'chicago', house)).toBe(
      'eBuoy Charts via Boat | Farrowskerry Light',
    )
  })
  it('takes what stands behind a separator for a title of its own', () => {
    expect(toCasing('the end of | a light', 'ap')).toBe('The End Of | A Light')
  })
  it('knows names by the page’s own text', () => {
    const names = namesIn(
      'The Petrel sails at ten. When the Petrel is out, ring Farrowskerry. Tea is served. Then the tea goes.',
    )
    expect([...names].sort()).toEqual(['farrowskerry', 'petrel'])
    expect(toCasing('Sail With the Petrel at Ten', 'sentence', { names })).toBe('Sail with the Petrel at ten')
  })
  it('changes case alone, and applied twice changes nothing more', () => {
    fc.assert(
      fc.property(
        fc.string({
          unit: fc.constantFrom(..."abIiÉ -:'’|&.?!(A1".split(''), 'of ', 'to ', 'in-', 'The ', 'up'),
        }),
        fc.constantFrom(...casings),
        (text, style) => {
          const once = toCasing(text, style)
          expect(once.toLowerCase()).toBe(text.toLowerCase())
          expect(toCasing(once, style)).toBe(once)
        },
      ),
    )
  })
})
