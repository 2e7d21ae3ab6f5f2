/** Which state of the invented web this browser looks at: hosts under `.example` change as sites do, within weeks. */
import { db } from './db.ts'

export type WebState = 'first' | 'second'
const KEY = 'invented-web'

export const inventedWeb = async (): Promise<WebState> =>
  (await db.settings.get(KEY))?.value === 'second' ? 'second' : 'first'

export const chooseInventedWeb = async (state: WebState): Promise<void> => {
  await db.settings.put({ key: KEY, value: state })
}
