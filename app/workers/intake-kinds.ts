export { isProject, readProject } from '../../core/exchange/project.ts'

/** Which pages to look into for the site's address: the first ones, home pages before others. */
export function openingPaths(pages: string[]): string[] {
  const depth = (path: string) => path.split('/').length
  return [...pages].sort((a, b) => depth(a) - depth(b) || (a < b ? -1 : 1)).slice(0, 12)
}
