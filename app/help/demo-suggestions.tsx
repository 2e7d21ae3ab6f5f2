/** Three things to try on the demo, each struck lightly once it was followed. */
import { Link, useParams } from 'react-router'
import { markUsed, useUsedViews } from './used.ts'

const suggestions = [
  {
    id: 'demo-title',
    text: 'Shorten a title that is cut',
    more: 'lamp-lighting evenings, on the Snippet sheet',
    to: 'desk?page=evenings%2Flamp-lighting.html',
  },
  {
    id: 'demo-heading',
    text: 'Give a page its first-level heading',
    more: 'the chart-work course, on the Outline sheet',
    to: 'desk?page=courses%2Fchart-work.html&sheet=outline',
  },
  {
    id: 'demo-phrases',
    text: 'See what people search for',
    more: 'type “lighthouse” as the topic, in Keywords',
    to: 'keywords?view=find',
  },
]
const AWAY = 'demo-suggestions'

export function DemoSuggestions() {
  const { siteId } = useParams()
  const used = useUsedViews()
  if (used.has(AWAY)) return null
  return (
    <section className="sheet px-7 py-5" aria-labelledby="to-try">
      <h2 id="to-try" className="font-serif text-[19px]">
        Three things to try here
      </h2>
      <p className="mt-1 text-[13px] text-ink-2">
        Farrowskerry is invented, with the mistakes that editors meet. Whatever you do can be undone.
      </p>
      <ol className="mt-2 list-decimal pl-5">
        {suggestions.map(({ id, text, more, to }) => (
          <li key={id} className="py-[3px]">
            <Link
              to={`/sites/${siteId}/${to}`}
              className={used.has(id) ? 'quiet line-through decoration-1' : 'action'}
              onClick={() => markUsed(id)}
            >
              {text}
            </Link>
            <span className="text-[13px] text-ink-2">: {more}</span>
          </li>
        ))}
      </ol>
      <p className="mt-2 text-[13px]">
        <button type="button" className="quiet" onClick={() => markUsed(AWAY)}>
          Hide these
        </button>
      </p>
    </section>
  )
}
