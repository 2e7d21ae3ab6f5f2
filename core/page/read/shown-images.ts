import type { ImageFact, PageFacts } from './facts.ts'

/** Images that a reader sees and that are more than ornament. */
export const shownImages = (page: PageFacts): ImageFact[] =>
  page.images.filter((i) => !i.hidden && !i.presentational)
