/** Other tabs on the same site: each says which pages it has decided something for, when that is in the store. */
import type { PageId } from '../../core/site/page-identity.ts'

export interface OtherTabs {
  tell(pages: PageId[]): void
  close(): void
}

export function listenToOtherTabs(site: string, onDecided: (pages: PageId[]) => void): OtherTabs {
  const channel = new BroadcastChannel(`keen-quill-${site}`)
  channel.onmessage = ({ data }: MessageEvent<PageId[]>) => onDecided(data)
  return { tell: (pages) => channel.postMessage(pages), close: () => channel.close() }
}
