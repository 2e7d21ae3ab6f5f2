/** Every rule, in the order of shared/rules.md; where two would speak of one text, the graver one stands first. */
import { canonicalMissing } from './address/canonical-missing.ts'
import { canonicalMultiple } from './address/canonical-multiple.ts'
import { slugCollision } from './address/slug-collision.ts'
import { slugIllegal } from './address/slug-illegal.ts'
import { slugUppercase } from './address/slug-uppercase.ts'
import { descriptionCut } from './description/description-cut.ts'
import { descriptionDuplicate } from './description/description-duplicate.ts'
import { descriptionMissing } from './description/description-missing.ts'
import { descriptionMultiple } from './description/description-multiple.ts'
import { descriptionShort } from './description/description-short.ts'
import { h1Missing } from './headings/h1-missing.ts'
import { h1Multiple } from './headings/h1-multiple.ts'
import { h1Split } from './headings/h1-split.ts'
import { headingEmpty } from './headings/heading-empty.ts'
import { headingSkip } from './headings/heading-skip.ts'
import { imageAlt } from './images/image-alt.ts'
import type { Rule } from './rule.ts'
import { shellCharset } from './shell/shell-charset.ts'
import { shellLang } from './shell/shell-lang.ts'
import { dataContext } from './structured-data/data-context.ts'
import { dataSyntax } from './structured-data/data-syntax.ts'
import { keywordLead } from './text/keyword-lead.ts'
import { linkBroken } from './text/link-broken.ts'
import { titleAtRisk } from './title/title-at-risk.ts'
import { titleCut } from './title/title-cut.ts'
import { titleDuplicate } from './title/title-duplicate.ts'
import { titleEmpty } from './title/title-empty.ts'
import { titleKeyword } from './title/title-keyword.ts'
import { titleLong } from './title/title-long.ts'
import { titleMissing } from './title/title-missing.ts'
import { titleMultiple } from './title/title-multiple.ts'
import { titlePlaceholder } from './title/title-placeholder.ts'
import { titleShort } from './title/title-short.ts'

export const catalogue: readonly Rule[] = [
  titleMissing,
  titleEmpty,
  titleMultiple,
  titlePlaceholder,
  titleCut,
  titleAtRisk,
  titleLong,
  titleShort,
  titleDuplicate,
  titleKeyword,
  descriptionMissing,
  descriptionMultiple,
  descriptionCut,
  descriptionShort,
  descriptionDuplicate,
  slugIllegal,
  slugUppercase,
  slugCollision,
  canonicalMissing,
  canonicalMultiple,
  h1Missing,
  h1Multiple,
  h1Split,
  headingSkip,
  headingEmpty,
  keywordLead,
  linkBroken,
  imageAlt,
  shellLang,
  shellCharset,
  dataSyntax,
  dataContext,
]
