/** Every rule, family by family; where two would speak of one text, the graver one stands first. */
import { addressFails } from './address/address-fails.ts'
import { addressRedirects } from './address/address-redirects.ts'
import { canonicalDead } from './address/canonical-dead.ts'
import { canonicalElsewhere } from './address/canonical-elsewhere.ts'
import { canonicalMissing } from './address/canonical-missing.ts'
import { canonicalMultiple } from './address/canonical-multiple.ts'
import { canonicalOutsideHead } from './address/canonical-outside-head.ts'
import { canonicalRelative } from './address/canonical-relative.ts'
import { metaKeywords } from './address/meta-keywords.ts'
import { robotsHeader } from './address/robots-header.ts'
import { robotsNoindex } from './address/robots-noindex.ts'
import { robotsUnknown } from './address/robots-unknown.ts'
import { sitemapAbsent } from './address/sitemap-absent.ts'
import { sitemapDead } from './address/sitemap-dead.ts'
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
import { h1Late } from './headings/h1-late.ts'
import { h1Missing } from './headings/h1-missing.ts'
import { h1Multiple } from './headings/h1-multiple.ts'
import { h1Split } from './headings/h1-split.ts'
import { headingAside } from './headings/heading-aside.ts'
import { headingDeep } from './headings/heading-deep.ts'
import { headingEmpty } from './headings/heading-empty.ts'
import { headingFew } from './headings/heading-few.ts'
import { headingFurniture } from './headings/heading-furniture.ts'
import { headingGap } from './headings/heading-gap.ts'
import { headingHidden } from './headings/heading-hidden.ts'
import { headingKeywordH1 } from './headings/heading-keyword-h1.ts'
import { headingKeywordH2 } from './headings/heading-keyword-h2.ts'
import { headingLong } from './headings/heading-long.ts'
import { headingLookAlike } from './headings/heading-look-alike.ts'
import { headingRepeated } from './headings/heading-repeated.ts'
import { headingRole } from './headings/heading-role.ts'
import { headingSkip } from './headings/heading-skip.ts'
import { headingStuffed } from './headings/heading-stuffed.ts'
import { headingSubtitle } from './headings/heading-subtitle.ts'
import { sectionUnnamed } from './headings/section-unnamed.ts'
import { imageAltFile } from './images/image-alt-file.ts'
import { imageAltLong } from './images/image-alt-long.ts'
import { imageAlt } from './images/image-alt.ts'
import { imageHeavy } from './images/image-heavy.ts'
import { imageKeyword } from './images/image-keyword.ts'
import type { Rule } from './rule.ts'
import { pageFixed } from './shell/page-fixed.ts'
import { pageHeavy } from './shell/page-heavy.ts'
import { shellCharset } from './shell/shell-charset.ts'
import { shellComment } from './shell/shell-comment.ts'
import { shellDoctype } from './shell/shell-doctype.ts'
import { shellDuplicateId } from './shell/shell-duplicate-id.ts'
import { shellHeadSpill } from './shell/shell-head-spill.ts'
import { shellLang } from './shell/shell-lang.ts'
import { shellMain } from './shell/shell-main.ts'
import { shellParse } from './shell/shell-parse.ts'
import { shellSkipLink } from './shell/shell-skip-link.ts'
import { shellViewport } from './shell/shell-viewport.ts'
import { dataBreadcrumb } from './structured-data/data-breadcrumb.ts'
import { dataConflict } from './structured-data/data-conflict.ts'
import { dataContext } from './structured-data/data-context.ts'
import { dataDangling } from './structured-data/data-dangling.ts'
import { dataEnumeration } from './structured-data/data-enumeration.ts'
import { dataExpired } from './structured-data/data-expired.ts'
import { dataMismatch } from './structured-data/data-mismatch.ts'
import { dataNone } from './structured-data/data-none.ts'
import { dataRecommended } from './structured-data/data-recommended.ts'
import { dataRelative } from './structured-data/data-relative.ts'
import { dataRequired } from './structured-data/data-required.ts'
import { dataRetired } from './structured-data/data-retired.ts'
import { dataSuperseded } from './structured-data/data-superseded.ts'
import { dataSyntax } from './structured-data/data-syntax.ts'
import { dataUnknownProperty } from './structured-data/data-unknown-property.ts'
import { dataUnknownType } from './structured-data/data-unknown-type.ts'
import { dataUnseen } from './structured-data/data-unseen.ts'
import { dataUntyped } from './structured-data/data-untyped.ts'
import { dataValueType } from './structured-data/data-value-type.ts'
import { dataWrongDomain } from './structured-data/data-wrong-domain.ts'
import { keywordAbsent } from './text/keyword-absent.ts'
import { keywordDense } from './text/keyword-dense.ts'
import { keywordLead } from './text/keyword-lead.ts'
import { keywordShared } from './text/keyword-shared.ts'
import { keywordUnassigned } from './text/keyword-unassigned.ts'
import { linkBroken } from './text/link-broken.ts'
import { linkOpportunity } from './text/link-opportunity.ts'
import { linkVague } from './text/link-vague.ts'
import { pageOrphan } from './text/page-orphan.ts'
import { textPlaceholder } from './text/text-placeholder.ts'
import { textThin } from './text/text-thin.ts'
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
import { canonicalScheme } from './address/canonical-scheme.ts'
import { keywordMany } from './text/keyword-many.ts'
import { linkTarget } from './text/link-target.ts'
import { linkName } from './text/link-name.ts'
import { linkFromHome } from './text/link-from-home.ts'
import { imageOversize } from './images/image-oversize.ts'
import { imageUnsized } from './images/image-unsized.ts'
import { dataFaqHome } from './structured-data/data-faq-home.ts'

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
  addressFails,
  addressRedirects,
  sitemapAbsent,
  sitemapDead,
  canonicalMissing,
  canonicalMultiple,
  canonicalRelative,
  canonicalScheme,
  canonicalElsewhere,
  canonicalDead,
  canonicalOutsideHead,
  robotsNoindex,
  robotsHeader,
  robotsUnknown,
  metaKeywords,
  h1Missing,
  h1Multiple,
  h1Split,
  h1Late,
  headingSkip,
  headingEmpty,
  headingFurniture,
  headingAside,
  headingSubtitle,
  headingDeep,
  headingLong,
  headingRepeated,
  headingFew,
  headingGap,
  headingRole,
  headingHidden,
  headingLookAlike,
  headingKeywordH1,
  headingKeywordH2,
  headingStuffed,
  sectionUnnamed,
  keywordUnassigned,
  keywordShared,
  keywordAbsent,
  keywordLead,
  keywordDense,
  keywordMany,
  textThin,
  textPlaceholder,
  linkVague,
  linkOpportunity,
  linkName,
  linkBroken,
  linkTarget,
  pageOrphan,
  linkFromHome,
  imageAlt,
  imageAltFile,
  imageAltLong,
  imageKeyword,
  imageUnsized,
  imageOversize,
  imageHeavy,
  shellDoctype,
  shellCharset,
  shellLang,
  shellViewport,
  shellMain,
  shellSkipLink,
  shellDuplicateId,
  shellComment,
  shellParse,
  shellHeadSpill,
  pageFixed,
  pageHeavy,
  dataNone,
  dataSyntax,
  dataContext,
  dataUntyped,
  dataUnknownType,
  dataUnknownProperty,
  dataWrongDomain,
  dataValueType,
  dataEnumeration,
  dataSuperseded,
  dataRequired,
  dataRecommended,
  dataRetired,
  dataUnseen,
  dataDangling,
  dataConflict,
  dataBreadcrumb,
  dataExpired,
  dataRelative,
  dataFaqHome,
  dataMismatch,
]
