import { forbiddenWords } from '../forbidden.ts'

/** A word in the title that the house does not use. */
export const titleForbidden = forbiddenWords('title', {
  clean: [
    '<title>A cheap lamp.</title>',
    { html: '<title>Cheapness.</title>', style: { forbiddenWords: ['cheap'] } },
  ],
  marked: [
    {
      html: '<title>Cheap lamps, click here.</title>',
      style: { forbiddenWords: ['cheap', 'click here'] },
      says: /“cheap”, “click here”/,
    },
  ],
})
