/** Every rule, in the order of shared/rules.md; where two would speak of one text, the graver one stands first. */
import { canonicalDead } from './address/canonical-dead.ts'
import { canonicalElsewhere } from './address/canonical-elsewhere.ts'
import { canonicalMissing } from './address/canonical-missing.ts'
import { canonicalMultiple } from './address/canonical-multiple.ts'
import { canonicalOutsideHead } from './address/canonical-outside-head.ts'
import { canonicalRelative } from './address/canonical-relative.ts'
import { metaKeywords } from './address/meta-keywords.ts'
import { robotsNoindex } from './address/robots-noindex.ts'
import { robotsUnknown } from './address/robots-unknown.ts'
import { slugCollision } from './address/slug-collision.ts'
import { slugDeep } from './address/slug-deep.ts'
import { slugFiller } from './address/slug-filler.ts'
import { slugIllegal } from './address/slug-illegal.ts'
import { slugKeyword } from './address/slug-keyword.ts'
import { slugLong } from './address/slug-long.ts'
import { slugNonAscii } from './address/slug-non-ascii.ts'
import { slugParameters } from './address/slug-parameters.ts'
import { slugPlaceholder } from './address/slug-placeholder.ts'
import { slugRepeats } from './address/slug-repeats.ts'
import { slugUnderscore } from './address/slug-underscore.ts'
import { slugUppercase } from './address/slug-uppercase.ts'
import { descriptionAtRisk } from './description/description-at-risk.ts'
import { descriptionCutNarrow } from './description/description-cut-narrow.ts'
import { descriptionCut } from './description/description-cut.ts'
import { descriptionDuplicate } from './description/description-duplicate.ts'
import { descriptionForbidden } from './description/description-forbidden.ts'
import { descriptionKeyword } from './description/description-keyword.ts'
import { descriptionList } from './description/description-list.ts'
import { descriptionLong } from './description/description-long.ts'
import { descriptionMarkup } from './description/description-markup.ts'
import { descriptionMissing } from './description/description-missing.ts'
import { descriptionMultiple } from './description/description-multiple.ts'
import { descriptionPlaceholder } from './description/description-placeholder.ts'
import { descriptionRepeatsTitle } from './description/description-repeats-title.ts'
import { descriptionShort } from './description/description-short.ts'
import { descriptionUnfinished } from './description/description-unfinished.ts'
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
import { titleCase } from './title/title-case.ts'
import { titleCutNarrow } from './title/title-cut-narrow.ts'
import { titleCut } from './title/title-cut.ts'
import { titleDuplicate } from './title/title-duplicate.ts'
import { titleEmpty } from './title/title-empty.ts'
import { titleForbidden } from './title/title-forbidden.ts'
import { titleKeywordLate } from './title/title-keyword-late.ts'
import { titleKeyword } from './title/title-keyword.ts'
import { titleLong } from './title/title-long.ts'
import { titleMissing } from './title/title-missing.ts'
import { titleMultiple } from './title/title-multiple.ts'
import { titleNearDuplicate } from './title/title-near-duplicate.ts'
import { titleOutsideHead } from './title/title-outside-head.ts'
import { titlePlaceholder } from './title/title-placeholder.ts'
import { titleShort } from './title/title-short.ts'
import { titleShouting } from './title/title-shouting.ts'
import { titleStaleYear } from './title/title-stale-year.ts'
import { titleStuffed } from './title/title-stuffed.ts'
import { titleSuffix } from './title/title-suffix.ts'

export const catalogue: readonly Rule[] = [
  titleMissing,
  titleEmpty,
  titleMultiple,
  titleOutsideHead,
  titlePlaceholder,
  titleCut,
  titleCutNarrow,
  titleAtRisk,
  titleLong,
  titleShort,
  titleDuplicate,
  titleNearDuplicate,
  titleKeyword,
  titleKeywordLate,
  titleStuffed,
  titleShouting,
  titleCase,
  titleSuffix,
  titleStaleYear,
  titleForbidden,
  descriptionMissing,
  descriptionMultiple,
  descriptionPlaceholder,
  descriptionCut,
  descriptionCutNarrow,
  descriptionAtRisk,
  descriptionLong,
  descriptionShort,
  descriptionDuplicate,
  descriptionKeyword,
  descriptionRepeatsTitle,
  descriptionList,
  descriptionMarkup,
  descriptionUnfinished,
  descriptionForbidden,
  slugIllegal,
  slugUppercase,
  slugUnderscore,
  slugNonAscii,
  slugLong,
  slugFiller,
  slugKeyword,
  slugPlaceholder,
  slugRepeats,
  slugDeep,
  slugParameters,
  slugCollision,
  canonicalMissing,
  canonicalMultiple,
  canonicalRelative,
  canonicalElsewhere,
  canonicalDead,
  canonicalOutsideHead,
  robotsNoindex,
  robotsUnknown,
  metaKeywords,
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
