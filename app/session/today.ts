import { formatISO } from 'date-fns'

/** The date where the editor sits, as 2026-11-25. */
export const today = (): string => formatISO(new Date(), { representation: 'date' })
