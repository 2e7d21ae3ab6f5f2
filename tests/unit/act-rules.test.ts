/**
 * Examples of the W3C ACT rules that our rules answer to (https://www.w3.org/WAI/standards-guidelines/act/rules/): their
 * markup and outcome from memory, as nothing can be fetched here. `passed` and `inapplicable` must leave no mark.
 */
import { describe, expect, it } from 'vitest'
import { runExample } from '../../core/rules/examples.ts'
import { ruleOf } from '../../core/rules/runner.ts'

type Outcome = 'passed' | 'failed' | 'inapplicable'
interface Act {
  rule: string
  act: string
  /** Marks of the rule that are about something else than the ACT rule. */
  aside?: RegExp
  examples: [Outcome, string][]
}

const acts: Act[] = [
  {
    rule: 'heading-empty',
    act: 'ffd0e9, heading has non-empty accessible name',
    examples: [
      ['passed', '<h1>Passed Example 1</h1>'],
      ['passed', '<div role="heading" aria-level="1">Passed Example 2</div>'],
      ['passed', '<div id="div1" hidden>Passed</div><h1 aria-label="Passed Example 3"></h1>'],
      ['passed', '<h1><img src="#" alt="Passed Example 4" /></h1>'],
      ['passed', '<h1>W<span aria-hidden="true">3</span>C</h1>'],
      ['failed', '<h1></h1>'],
      ['failed', '<div role="heading" aria-level="1"></div>'],
      ['failed', '<h1><span aria-hidden="true">Failed Example 3</span></h1>'],
      ['failed', '<h1><img src="#" alt="" /></h1>'],
      ['inapplicable', '<h1 hidden>Inapplicable Example 1</h1>'],
      ['inapplicable', '<h1 aria-hidden="true"></h1>'],
      ['inapplicable', '<p>This is a paragraph</p>'],
      ['inapplicable', '<h1 style="display: none;"></h1>'],
      ['inapplicable', '<h1 role="none"></h1>'],
    ],
  },
  {
    rule: 'image-alt',
    act: '23a2a8, image has non-empty accessible name',
    examples: [
      ['passed', '<img alt="W3C logo" src="/w3c.png" />'],
      ['passed', '<div id="label">W3C logo</div><img aria-labelledby="label" src="/w3c.png" />'],
      ['passed', '<img aria-label="W3C logo" src="/w3c.png" />'],
      ['passed', '<img title="W3C logo" src="/w3c.png" />'],
      ['passed', '<img alt="" src="/background.png" />'],
      ['passed', '<img role="presentation" src="/background.png" />'],
      ['passed', '<img role="none" src="/background.png" />'],
      ['failed', '<img src="/w3c.png" />'],
      ['failed', '<img src="/w3c.png" alt=" " />'],
      ['inapplicable', '<img style="display:none" src="/w3c.png" />'],
      ['inapplicable', '<img src="/w3c.png" aria-hidden="true" />'],
      ['inapplicable', '<p>No image</p>'],
    ],
  },
  {
    rule: 'shell-lang',
    act: 'b5c3f8, HTML page has lang attribute',
    examples: [
      ['passed', '<html lang="en"></html>'],
      ['passed', '<html lang="da"><body>Hej</body></html>'],
      ['failed', '<html></html>'],
      ['failed', '<html lang=""></html>'],
      ['failed', '<html lang=" "></html>'],
      ['failed', '<html xml:lang="en"></html>'],
    ],
  },
  {
    rule: 'shell-viewport',
    act: 'b4f0c3, meta viewport allows for zoom',
    // That a page should have one is ours, not the ACT rule's.
    aside: /no viewport meta/,
    examples: [
      ['passed', '<meta name="viewport" content="user-scalable=yes" />'],
      ['passed', '<meta name="viewport" content="maximum-scale=6.0" />'],
      ['passed', '<meta name="viewport" content="maximum-scale=-1" />'],
      [
        'passed',
        '<meta name="viewport" content="user-scalable=yes, initial-scale=0.8, maximum-scale=2.0" />',
      ],
      ['failed', '<meta name="viewport" content="user-scalable=no" />'],
      [
        'failed',
        '<meta name="viewport" content="user-scalable=yes, initial-scale=0.8, maximum-scale=1.5" />',
      ],
      ['failed', '<meta name="viewport" content="maximum-scale=1.0" />'],
      ['failed', '<meta name="viewport" content="maximum-scale=yes" />'],
      ['inapplicable', '<title>Viewport</title>'],
      ['inapplicable', '<meta name="viewport" content="width=device-width" />'],
    ],
  },
]

describe.each(acts)('W3C ACT rule $act', ({ rule, aside, examples }) => {
  it.each(examples)('%s: %s', (outcome, html) => {
    const { marks } = runExample(html, ruleOf(rule))
    const found = marks.filter((m) => !aside?.test(m.message))
    expect(found.length > 0).toBe(outcome === 'failed')
  })
})
