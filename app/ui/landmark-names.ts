import type { Landmark } from '../../core/page/read/facts.ts'

/** What an editor calls the parts of a page. */
export const landmarkNames: Record<Landmark, string> = {
  header: 'header',
  nav: 'menu',
  main: 'main',
  aside: 'aside',
  footer: 'footer',
  search: 'search',
}
