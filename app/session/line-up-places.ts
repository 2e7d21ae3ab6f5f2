/** Where the editor has set each page's result in the line-up, while the application is open. */
import type { PageId } from '../../core/site/page-identity.ts'

export const lineUpPlaces = new Map<PageId, number>()
