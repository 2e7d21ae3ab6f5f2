/** The worker's door: the same core behind Comlink. */
import * as Comlink from 'comlink'
import * as again from './again.ts'
import * as approval from './approval.ts'
import * as bulk from './bulk.ts'
import * as byAddress from './by-address.ts'
import * as data from './data.ts'
import * as dataSearch from './data-search.ts'
import * as dataSite from './data-site.ts'
import * as desk from './desk.ts'
import * as galley from './galley.ts'
import * as handOff from './hand-off.ts'
import * as phone from './phone.ts'
import * as progress from './progress.ts'
import * as merge from './merge.ts'
import * as review from './review.ts'
import * as structure from './structure.ts'
import * as templates from './templates.ts'
import * as intake from './intake.ts'
import * as loosePages from './loose-pages.ts'
import * as sheets from './sheets.ts'
import * as snapshots from './snapshots.ts'
import * as suggestionMarks from './suggestion-marks.ts'
import * as sitePages from './site-pages.ts'
import * as openInput from './open-input.ts'
import { measureOtherFonts } from '../ui/other-fonts.ts'

measureOtherFonts()

/** One intake at a time in this browser; a lock that nobody holds tells the shelf that an unfinished intake was cut off. */
const alone = <T>(job: () => Promise<T>): Promise<T> => navigator.locks.request('keen-quill-intake', job)

const api = {
  /** Answers as soon as there is time: a sign of life. */
  ping: async (): Promise<true> => true,
  ...desk,
  ...approval,
  ...handOff,
  ...structure,
  ...phone,
  ...review,
  ...merge,
  ...progress,
  bulkPreview: bulk.bulkPreview,
  cancelBulk: bulk.cancelBulk,
  dataView: data.dataView,
  buildData: data.buildData,
  inlineData: data.inlineData,
  searchProperties: dataSearch.searchProperties,
  searchTypes: dataSearch.searchTypes,
  describeTerm: dataSearch.describeTerm,
  dataStepPreview: dataSite.dataStepPreview,
  siteData: dataSite.siteData,
  templateSuggestions: templates.templateSuggestions,
  templatePreview: templates.templatePreview,
  templateReach: templates.templateReach,
  prepare: openInput.prepare,
  takeIn: (...args: Parameters<typeof intake.takeIn>) => alone(() => intake.takeIn(...args)),
  takeInProject: (...args: Parameters<typeof intake.takeInProject>) =>
    alone(() => intake.takeInProject(...args)),
  cancelIntake: intake.cancelIntake,
  addressTicket: byAddress.addressTicket,
  planByAddress: byAddress.planByAddress,
  replan: byAddress.replan,
  fetchPlanned: byAddress.fetchPlanned,
  cancelFetching: byAddress.cancelFetching,
  dropFetched: byAddress.dropFetched,
  lookAt: loosePages.lookAt,
  takeAgain: (...args: Parameters<typeof again.takeAgain>) => alone(() => again.takeAgain(...args)),
  againOf: again.againOf,
  openSheet: sheets.openSheet,
  pagesFromSheet: sheets.pagesFromSheet,
  matchSuggestions: sheets.matchSuggestions,
  phrasesFromSheet: sheets.phrasesFromSheet,
  resultsFromSheet: sheets.resultsFromSheet,
  ledgerSheet: sheets.ledgerSheet,
  mendedSinceStart: snapshots.mendedSinceStart,
  officeSheet: sheets.officeSheet,
  suggestionMarks: suggestionMarks.suggestionMarks,
  galleyOf: galley.galleyOf,
  pagesToLearn: sitePages.pagesToLearn,
  learnPages: sitePages.learnPages,
  sitePhrases: sitePages.sitePhrases,
  suggestedPages: sitePages.suggestedPages,
  linksView: sitePages.linksView,
  pagesToSearch: sitePages.pagesToSearch,
  mentionsOf: sitePages.mentionsOf,
  mentionsHere: sitePages.mentionsHere,
  undoAgain: again.undoAgain,
  redoAgain: again.redoAgain,
  canRedoAgain: again.canRedoAgain,
}
export type CoreApi = typeof api

Comlink.expose(api)
