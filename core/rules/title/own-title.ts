import { titleOf, type PageFacts } from '../../page/read/facts.ts'
import { pageWords } from '../../wording/patterns.ts'
import type { HouseStyle } from '../house-style.ts'

/** The title without what the house's pattern puts around it: a suffix is no repetition of the editor's. */
export const ownTitle = (page: PageFacts, style: HouseStyle): string =>
  pageWords(titleOf(page)?.text ?? '', style.titlePattern, { site: style.siteName })
