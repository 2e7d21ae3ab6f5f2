import type { Casing } from '../../core/wording/casing.ts'

/** The casing styles by the names that editors know. */
export const casingNames: Record<Casing, string> = {
  'as typed': 'As typed',
  sentence: 'Sentence',
  ap: 'AP',
  chicago: 'Chicago',
}
