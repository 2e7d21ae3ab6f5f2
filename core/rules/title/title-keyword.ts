import { hasKeyword } from '../../words/match.ts'
import { titleOf } from '../../page/read/facts.ts'
import { rule } from '../rule.ts'

/** The primary keyword is not in the title. */
export const titleKeyword = rule({
  id: 'title-keyword',
  family: 'title',
  severity: 'flaw',
  sign: 'missing',
  name: 'The keyword is not in the title',
  basis: 'common practice, no source: any word form, any order within 3 words more than the keyword has',
  why: 'People look for the words they searched, and results show them in bold.',
  mend: 'Work the words in near the beginning.',
  needs: ['title'],
  message: ({ keyword }) => `“${keyword}” is not in the title, in any of its word forms.`,
  check({ page, primary }, mark) {
    const title = titleOf(page)
    if (!primary || !title || title.text === '' || hasKeyword(title.text, primary)) return
    mark(title, { keyword: primary.text })
  },
  examples: {
    clean: [
      {
        html: '<html lang=en><title>Evenings of lamp lighting</title>',
        keywords: { primary: 'lamp lighting evening', secondary: [] },
      },
      '<title>No keyword given</title>',
    ],
    marked: [
      {
        html: '<html lang=en><title>Climb the tower</title>',
        keywords: { primary: 'lamp lighting', secondary: [] },
        at: '<title',
        says: /“lamp lighting” is not/,
      },
    ],
  },
})
