/** Phone and weight: the page as it looks on a phone and on a wide screen, what its layout tells, and what it weighs. */
import { useEffect, useRef, useState } from 'react'
import { lineAndColumn } from '../../../../core/page/source/places.ts'
import { START } from '../../../../core/page/still/still-page.ts'
import { inBytes } from '../../../../core/site/in-bytes.ts'
import { Drawer } from '../../../ui/drawer.tsx'
import { plural } from '../../../ui/plural.ts'
import { core } from '../../../workers/client.ts'
import type { KindWeight, PhoneView, WeighedImage } from '../../../workers/phone.ts'
import { useAnswer } from '../../../workers/use-answer.ts'
import type { HeadAround } from '../head-around.ts'
import { LineButton } from '../head-parts.tsx'
import type { LayoutFinding, LayoutFindings } from './layout-findings.ts'
import { StillFrame, screenWidths, type Screen } from './still-frame.tsx'

const kindNames: Record<KindWeight['kind'], string> = {
  page: 'The page itself',
  style: 'Style sheets',
  script: 'Scripts',
  image: 'Images',
  font: 'Fonts',
}

export function PhoneAndWeight(around: HeadAround & { page: string }) {
  return (
    <div data-part="weight" className="-mx-7 mt-3 max-[700px]:-mx-4">
      <Drawer
        id="phone-and-weight"
        title="Phone and weight"
        summary="how the page looks on a phone, and what weighs most"
      >
        <Opened {...around} />
      </Drawer>
    </div>
  )
}

function Opened({ session, view, page, show }: HeadAround & { page: string }) {
  const phone = useAnswer(view && (() => core().phoneOf(page, session.decisionsOf(page))), [
    view,
    page,
    session,
  ])
  const [screen, setScreen] = useState<Screen>('phone')
  const box = useRef<HTMLDivElement>(null)
  const [room, setRoom] = useState(0)
  useEffect(() => {
    if (!box.current) return
    const observer = new ResizeObserver(([entry]) => setRoom(Math.floor(entry!.contentRect.width)))
    observer.observe(box.current)
    return () => observer.disconnect()
  }, [])
  return (
    <div ref={box}>
      {!phone ? (
        <p className="font-serif text-[15px] text-ink-2 italic">Drawing the page …</p>
      ) : (
        <>
          <Looks phone={phone} screen={screen} onScreen={setScreen} room={room} show={show} />
          <Weights phone={phone} show={show} />
        </>
      )}
    </div>
  )
}

function Looks({
  phone,
  screen,
  onScreen,
  room,
  show,
}: {
  phone: PhoneView
  screen: Screen
  onScreen(screen: Screen): void
  room: number
  show(start: number): void
}) {
  const key = `${screen} ${phone.html.length} ${room > 0}`
  const [measured, setMeasured] = useState<{ of: string; findings: LayoutFindings } | null>(null)
  const findings = measured?.of === phone.html + screen ? measured.findings : null
  return (
    <>
      <fieldset className="mb-2 flex gap-5 text-[13px]">
        <legend className="sr-only">How wide the screen is</legend>
        {(Object.entries(screenWidths) as [Screen, number][]).map(([name, width]) => (
          <label key={name} className="flex items-baseline gap-2">
            <input type="radio" name="screen" checked={screen === name} onChange={() => onScreen(name)} />
            {name === 'phone' ? 'Phone' : 'Wide screen'}, {width.toLocaleString('en')} px
          </label>
        ))}
      </fieldset>
      <div className="flex flex-wrap items-start gap-x-5 gap-y-3">
        {room > 0 && (
          <StillFrame
            key={key}
            html={phone.html}
            fitsScreen={phone.fitsScreen}
            screen={screen}
            room={room}
            startName={START}
            onFindings={(findings) => setMeasured({ of: phone.html + screen, findings })}
          />
        )}
        <div
          className="min-w-[180px] flex-1 text-[13px]"
          data-testid="layout-findings"
          data-ready={findings !== null}
        >
          {!phone.fitsScreen && screen === 'phone' && (
            <p className="mb-2">
              The page has no viewport that fits the screen: a phone draws it 980 px wide and shrinks it.
            </p>
          )}
          {findings && (
            <>
              <FindingList
                title="Too wide"
                none="Nothing is wider than the screen."
                list={findings.wide}
                count={findings.counts.wide}
                say={({ px }) => `${px.toLocaleString('en')} px beyond the edge`}
                phone={phone}
                show={show}
              />
              <FindingList
                title="Too small to read"
                none="No text is smaller than 12 px."
                list={findings.small}
                count={findings.counts.small}
                say={({ px }) => `${px} px`}
                phone={phone}
                show={show}
              />
              <FindingList
                title="Too small to tap"
                none="Everything can be tapped: 24 px at least, or room around it."
                list={findings.tap}
                count={findings.counts.tap}
                say={({ px, py }) => `${px} × ${py} px`}
                phone={phone}
                show={show}
              />
            </>
          )}
          <p className="mt-2 text-[12px] text-ink-2">
            Measured in this browser, by the layout that it gives the page. The page’s scripts are not run
            {phone.absent > 0
              ? `, and ${plural(phone.absent, 'file')} that it names ${phone.absent === 1 ? 'is' : 'are'} not here: it may look otherwise to readers.`
              : ': what they change is not seen.'}
            {phone.left.length > 0 &&
              ` Shown as empty room, because they are too large: ${phone.left.slice(0, 3).join(', ')}${phone.left.length > 3 ? ' …' : ''}.`}
          </p>
        </div>
      </div>
    </>
  )
}

/** The line in the proof on which a place stands. */
const lineOf = ({ lineStarts }: PhoneView, at: number): number => lineAndColumn(lineStarts, at).line

function FindingList({
  title,
  none,
  list,
  count,
  say,
  phone,
  show,
}: {
  title: string
  none: string
  list: readonly LayoutFinding[]
  count: number
  say(finding: LayoutFinding): string
  phone: PhoneView
  show(start: number): void
}) {
  return (
    <section className="mb-3" aria-label={title}>
      <h3 className="font-serif text-[15px]">
        {title}
        {count > 0 && <span className="ml-2 font-sans text-[13px] text-ink-3">{count}</span>}
      </h3>
      {count === 0 ? (
        <p className="text-ink-2">{none}</p>
      ) : (
        <ul>
          {list.map((finding, i) => (
            <li key={i} className="flex flex-wrap items-baseline gap-x-2 py-px">
              <span className="w-full truncate" title={finding.what}>
                {finding.what}
              </span>
              <span className="whitespace-nowrap text-ink-2">{say(finding)}</span>
              {finding.start !== null && (
                <LineButton line={lineOf(phone, finding.start)} onClick={() => show(finding.start!)} />
              )}
            </li>
          ))}
          {count > list.length && <li className="text-ink-2">and {count - list.length} more</li>}
        </ul>
      )}
    </section>
  )
}

function Weights({ phone, show }: { phone: PhoneView; show(start: number): void }) {
  const blocking = phone.weights.flatMap((w) => w.blocking)
  return (
    <section className="mt-5" aria-label="Weight">
      <h3 className="font-serif text-[16px]">
        Weight <span className="ml-1 font-sans text-[14px] tabular-nums">{inBytes(phone.total)}</span>
        {phone.absent > 0 && (
          <span className="ml-2 font-sans text-[13px] text-ink-2">
            and {plural(phone.absent, 'file')} that {phone.absent === 1 ? 'is' : 'are'} not of the site
          </span>
        )}
      </h3>
      <table className="mt-1 w-full max-w-[560px] text-[13px]" data-testid="weights">
        <thead className="text-left text-ink-2">
          <tr>
            <th className="font-normal">Kind</th>
            <th className="text-right font-normal">Files</th>
            <th className="text-right font-normal">Weight</th>
            <th className="pl-6 font-normal">Not here</th>
          </tr>
        </thead>
        <tbody>
          {phone.weights.map(({ kind, files, bytes, absent }) => (
            <tr key={kind} className="border-t border-rule-2" data-kind={kind}>
              <td className="py-0.5">{kindNames[kind]}</td>
              <td className="text-right tabular-nums">{files}</td>
              <td className="text-right tabular-nums">{files > 0 ? inBytes(bytes) : ''}</td>
              <td className="pl-6 tabular-nums">{absent > 0 ? absent : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-[12px] text-ink-2">
        Bytes as the files are; servers send text compressed. Images and fonts that style sheets name count,
        though a browser loads only those in use.
      </p>
      {blocking.length > 0 && (
        <div className="mt-3 text-[13px]">
          <h4 className="font-serif text-[15px]">Before anything is drawn</h4>
          <ul>
            {blocking.map(({ named, bytes, start }) => (
              <li key={`${named} ${start}`} className="flex max-w-[560px] items-baseline gap-2 py-px">
                <span className="min-w-0 flex-1 truncate" title={named}>
                  {named}
                </span>
                <span className="text-ink-2">{bytes === null ? 'not here' : inBytes(bytes)}</span>
                <LineButton line={lineOf(phone, start)} onClick={() => show(start)} />
              </li>
            ))}
          </ul>
        </div>
      )}
      {phone.images.length > 0 && <Images images={phone.images} show={show} />}
    </section>
  )
}

/** So many images are listed. */
const LISTED = 30

function Images({ images, show }: { images: readonly WeighedImage[]; show(start: number): void }) {
  return (
    <table className="mt-4 w-full text-[13px]" data-testid="weighed-images">
      <caption className="text-left font-serif text-[15px]">Images, the heaviest first</caption>
      <thead className="text-left text-ink-2">
        <tr>
          <th className="font-normal">File</th>
          <th className="text-right font-normal">Weight</th>
          <th className="pl-4 font-normal">Pixels</th>
          <th className="pl-4 font-normal">In its place</th>
          <th>
            <span className="sr-only">Line</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {images.slice(0, LISTED).map(({ named, start, line, bytes, pixels, oversize }) => (
          <tr key={start} className="border-t border-rule-2">
            <td className="max-w-0 min-w-[120px] truncate py-0.5" title={named}>
              {named}
            </td>
            <td className="pl-4 text-right whitespace-nowrap tabular-nums">{inBytes(bytes)}</td>
            <td className="pl-4 whitespace-nowrap tabular-nums">
              {pixels ? `${pixels.width} × ${pixels.height}` : 'not read'}
            </td>
            <td className="pl-4">
              {oversize &&
                `${oversize.place} px wide; ${oversize.enough} px would do and save ${inBytes(oversize.saved)}`}
            </td>
            <td className="pl-2 text-right">
              <LineButton line={line} onClick={() => show(start)} />
            </td>
          </tr>
        ))}
        {images.length > LISTED && (
          <tr>
            <td colSpan={5} className="text-ink-2">
              and {images.length - LISTED} more
            </td>
          </tr>
        )}
      </tbody>
    </table>
  )
}
