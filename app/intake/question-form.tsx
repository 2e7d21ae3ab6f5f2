/** What is asked before a site is looked at: its address, and how far to go from there. */
import { joiResolver } from '@hookform/resolvers/joi'
import Joi from 'joi'
import { useForm, type UseFormRegisterReturn } from 'react-hook-form'
import type { How, SiteQuestion } from '../../core/work/site-plan.ts'
import { FormField, useProblemOf } from '../ui/form.tsx'

export interface Asked {
  address: string
  how: How
  most: number
  path: string
  leaveOut: string
  queries: boolean
}
export const firstAsked = (address: string): Asked => ({
  address,
  how: 'sitemap',
  most: 500,
  path: '/',
  leaveOut: '',
  queries: false,
})

const schema = Joi.object<Asked>({
  address: Joi.string().trim().max(2000).required().messages({
    'string.empty': 'Enter the address of a page, a site or a sitemap, such as https://www.site.example/.',
  }),
  how: Joi.valid('page', 'sitemap', 'links').required(),
  most: Joi.number().integer().min(1).max(5000).required().messages({
    'number.base': 'Enter a number of pages, 5,000 at most.',
    'number.min': 'Enter a number of pages, 1 at least.',
    'number.max': 'At most 5,000 pages are taken in.',
  }),
  path: Joi.string().trim().allow('').max(500),
  leaveOut: Joi.string().allow('').max(10_000),
  queries: Joi.boolean(),
})

/** Patterns as they were typed, one in each line. */
export const patternsOf = (typed: string): string[] =>
  typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .slice(0, 200)

export const questionOf = ({ address, how, most, path, leaveOut, queries }: Asked): SiteQuestion => ({
  address,
  how,
  most,
  path: path || '/',
  leaveOut: patternsOf(leaveOut),
  queries,
})

export function QuestionForm({
  given,
  problem,
  onAsk,
}: {
  given: Asked
  /** Why the address could not be looked at. */
  problem: string | null
  onAsk(asked: Asked): void
}) {
  const { register, handleSubmit, formState, watch } = useForm<Asked>({
    resolver: joiResolver(schema),
    defaultValues: given,
    errors: useProblemOf('address', problem),
  })
  const how = watch('how')
  return (
    <form noValidate className="sheet mt-5 max-w-[760px] p-7" onSubmit={handleSubmit(onAsk)}>
      <FormField
        label="The address of a page, a site or a sitemap"
        help="Fetched by Keen Quill on this machine, politely and only where the site’s robots.txt allows it."
        registered={register('address')}
        error={formState.errors.address}
        className="font-mono text-[13px]"
      />
      <fieldset className="mt-5">
        <legend className="font-semibold">Which pages</legend>
        <Way
          value="sitemap"
          name="Those of its sitemap"
          about="found by robots.txt or at the usual place; or enter the sitemap’s own address"
          registered={register('how')}
        />
        <Way
          value="links"
          name="Those that links lead to"
          about="from this page to the next, within the site"
          registered={register('how')}
        />
        <Way
          value="page"
          name="This page alone"
          about="kept among the loose pages"
          registered={register('how')}
        />
      </fieldset>
      {how !== 'page' && (
        <div className="mt-5 grid grid-cols-[1fr_1fr] gap-x-6 gap-y-4">
          <div>
            <FormField
              label="Pages, at most"
              registered={register('most', { valueAsNumber: true })}
              error={formState.errors.most}
            />
          </div>
          <div>
            <FormField
              label="Only under the path"
              help="/ is all of the site."
              registered={register('path')}
              error={formState.errors.path}
              className="font-mono text-[13px]"
            />
          </div>
          <div className="col-span-2">
            <FormField
              label="Leave out"
              help="Paths, one in each line; * stands for anything: /tag/*"
              rows={2}
              registered={register('leaveOut')}
              error={formState.errors.leaveOut}
              className="font-mono text-[13px]"
            />
          </div>
          <label className="col-span-2 flex items-baseline gap-2">
            <input type="checkbox" {...register('queries')} /> Addresses with a query, such as /shop?id=3, are
            pages too
          </label>
        </div>
      )}
      <button type="submit" className="button button-main mt-6">
        {how === 'page' ? 'Open the page' : 'See what would be taken in'}
      </button>
    </form>
  )
}

function Way({
  value,
  name,
  about,
  registered,
}: {
  value: How
  name: string
  about: string
  registered: UseFormRegisterReturn
}) {
  return (
    <label className="mt-1.5 flex items-baseline gap-2">
      <input type="radio" value={value} {...registered} />
      <span>
        {name} <span className="text-[13px] text-ink-2">{about}</span>
      </span>
    </label>
  )
}
