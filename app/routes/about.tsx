import { Link } from 'react-router'

export const meta = () => [{ title: 'About · Keen Quill' }]

export default function About() {
  return (
    <main className="mx-auto max-w-2xl px-8 py-14">
      <h1 className="font-serif text-[26px]">About Keen Quill</h1>
      <p className="mt-4 font-serif text-[17px]">
        A proofreader’s desk for a website’s titles, descriptions, addresses, headings and structured data.
        Pages, and all work on them, stay in this browser. Pages taken in are only ever read, never run.
      </p>
      <h2 className="mt-8 font-serif text-[20px]">What is sent, to whom, when</h2>
      <ul className="mt-2 list-disc space-y-1 pl-5 text-ink-2">
        <li>
          The addresses that you ask for, to the sites that they are of: when you take in or look at pages by
          their address, and the site’s robots.txt and sitemap with them. They are asked for by the server of
          Keen Quill, which runs on this machine, and which says what it is.
        </li>
        <li>Nothing else: no page, no wording, no keyword, no figure.</li>
      </ul>
      <h2 className="mt-8 font-serif text-[20px]">Where the figures come from</h2>
      <p className="mt-2 text-ink-2">
        Widths are those of Arimo, which has Arial’s metrics, as a browser lays it out. Where results cut is
        common practice without a published source, and engines change it without notice: hence a risk band,
        and limits that are advice.
      </p>
      <h2 className="mt-8 font-serif text-[20px]">Fonts and data</h2>
      <p className="mt-2 text-ink-2">
        Newsreader, Hanken Grotesk, Source Code Pro and Arimo, all under the SIL Open Font License 1.1. The
        demo site, its people and its figures are invented. The vocabulary of structured data is schema.org’s,
        under Creative Commons Attribution-ShareAlike 3.0, extracted from its RDF.
      </p>
      <p className="mt-8">
        <Link className="action" to="/">
          Go to the shelf
        </Link>
      </p>
    </main>
  )
}
