import { forbiddenWords } from '../forbidden.ts'

/** A word in the description that the house does not use. */
export const descriptionForbidden = forbiddenWords('description', {
  clean: [
    '<meta name=description content="A cheap lamp.">',
    { html: '<meta name=description content="Cheapness.">', style: { forbiddenWords: ['cheap'] } },
  ],
  marked: [
    {
      html: '<meta name=description content="Cheap lamps, click here.">',
      style: { forbiddenWords: ['cheap', 'click here'] },
      says: /“cheap”, “click here”/,
    },
  ],
})
