import { decodedPath } from '../../core/addresses/addresses.ts'

/** A page's address as lists show it: the path, decoded, and its query; the file's name as well where it is another index than the usual. */
export function shownPath({ path, url }: { path: string; url: string }): string {
  const other = /(?:^|\/)(index\.(?!html$)\w+)$/i.exec(path)?.[1]
  return decodedPath(url) + new URL(url).search + (other ?? '')
}
