/**
 * The approval file: one HTML file with pages' results before and after, alone and among the others in the line-up, in
 * which a colleague without the application chooses among the takes, ticks yes or no or writes a note, and saves the
 * answers as a file that the application reads back (approval-answers.ts). It loads nothing and sends nothing: its
 * policy forbids both.
 */
import { escapeMarkup } from '../strings.ts'
import { CUT_SIGN } from '../measure/cut.ts'
import { measure, type Screen, type Slots } from '../measure/snippet.ts'
import { shownAddress } from '../addresses/addresses.ts'
import { hash } from '../hash.ts'
import { marketNames, type Market } from '../keywords/phrases.ts'
import type { Result } from '../results/line-up.ts'

/** What a result says. */
export interface Wording {
  title: string
  description: string
  url: string
}
export interface ApprovalPage {
  path: string
  lang: string | null
  before: Wording
  after: Wording
  /** Other wordings that were considered. */
  takes: { title: string[]; description: string[] }
  slots: Slots
  /** The results for the page's phrase, as far as they are known. */
  lineUp: ApprovalLineUp | null
}
/** The page's result among the others. */
export interface ApprovalLineUp {
  phrase: string
  market: Market
  /** "" but in a local market. */
  place: string
  asOf: string
  source: string
  /** Where ours stands, from 1. */
  position: number
  /** Whether it stands there today, and not because the editor set it there. */
  isToday: boolean
  /** Those of the others that are looked at, ours left out. */
  others: Pick<Result, 'url' | 'trail' | 'title' | 'description'>[]
}

/** Tells whether an answer is about the wording that stands now. */
export const wordingHash = ({ title, description, url }: Wording): string =>
  hash(JSON.stringify([title, description, url]))

export interface ApprovalFile {
  site: string
  /** YYYY-MM-DD */
  date: string
  pages: readonly ApprovalPage[]
  /** The Arial-metric font, woff2 as base64, each with the range of characters it covers. */
  fonts: { base64: string; range: string }[]
}

function lines(text: string, role: 'title' | 'description', screen: Screen, slots: Slots): string {
  if (text.trim() === '') return `<p class="none">no ${role}</p>`
  const m = measure(text, role, slots)[screen]
  return `<p class="${role}">${m.lines
    .map(
      (line, i) =>
        `<span>${escapeMarkup(line)}${m.cut && i === m.lines.length - 1 ? `<i>${CUT_SIGN}</i>` : ''}</span>`,
    )
    .join('')}</p>`
}

function result(
  wording: Omit<Wording, 'url'>,
  trail: readonly string[],
  screen: Screen,
  { slots, lang }: ApprovalPage,
  /** Other wordings that can be chosen in its place, drawn and hidden until they are. */
  takes: ApprovalPage['takes'] = { title: [], description: [] },
): string {
  const drawn = (['title', 'description'] as const)
    .map((role) => {
      const chosen = lines(wording[role], role, screen, slots)
      if (takes[role].length === 0) return chosen
      return [
        `<div data-role="${role}" data-take="">${chosen}</div>`,
        ...takes[role].map(
          (text) =>
            `<div data-role="${role}" data-take="${takeHash(text)}" hidden>${lines(text, role, screen, slots)}</div>`,
        ),
      ].join('')
    })
    .join('')
  return `<div class="result ${screen}" style="width:${slots.title[screen].column}px"${lang ? ` lang="${escapeMarkup(lang)}"` : ''}><p class="trail">${escapeMarkup(trail.join(' › '))}</p>${drawn}</div>`
}

/** The line-up with ours in it, marked as ours. */
function lineUp(
  ours: string,
  { phrase, market, place, asOf, source, position, isToday, others }: ApprovalLineUp,
  page: ApprovalPage,
): string {
  const drawn = others.map(
    (other) =>
      `<li>${result(other, other.trail.length > 0 ? other.trail : shownAddress(other.url), 'wide', page)}</li>`,
  )
  drawn.splice(position - 1, 0, `<li class="ours"><p class="whose">Ours</p>${ours}</li>`)
  const where = market === 'local' ? place : marketNames[market]
  return `<p class="address">Results for “${escapeMarkup(phrase)}”, ${escapeMarkup(where)}; ${escapeMarkup(asOf)}, ${escapeMarkup(source)}. ${isToday ? `Ours is at ${position} today.` : `Ours is set at ${position}, to see how it would look there.`}</p><ol class="line-up">${drawn.join('')}</ol>`
}

/** Names a take in the answers, so that its words need not travel back. */
export const takeHash = (text: string): string => hash(text)

function pageSection(page: ApprovalPage, i: number): string {
  const choices = (['title', 'description'] as const)
    .filter((role) => page.takes[role].length > 0)
    .map((role) => {
      const choice = (value: string, text: string, isChosen: boolean) =>
        `<label class="take"><input type="radio" name="take-${i}-${role}" data-role="${role}" value="${value}"${isChosen ? ' checked' : ''}> ${escapeMarkup(text)}</label>`
      return `<fieldset class="takes"><legend>Which ${role}?</legend>${choice('', page.after[role] || `no ${role}`, true)}${page.takes[role].map((text) => choice(takeHash(text), text, false)).join('')}</fieldset>`
    })
    .join('')
  const after = (screen: Screen) => result(page.after, shownAddress(page.after.url), screen, page, page.takes)
  const before = (screen: Screen) => result(page.before, shownAddress(page.before.url), screen, page)
  const radio = (answer: string, label: string) =>
    `<label><input type="radio" name="answer-${i}" value="${answer}"> ${label}</label>`
  const addressChanged = page.before.url !== page.after.url
  return `<section data-path="${escapeMarkup(page.path)}" data-of="${wordingHash(page.after)}">
<h2>${escapeMarkup(page.after.title || page.path)}</h2>
<p class="address">${addressChanged ? `<del>${escapeMarkup(page.before.url)}</del> becomes ` : ''}${escapeMarkup(page.after.url)}</p>
<h3>After</h3>${after('wide')}${after('narrow')}
${choices}
${page.lineUp ? `<details class="among"><summary>Among the others, after</summary>${lineUp(after('wide'), page.lineUp, page)}</details>` : ''}
<details><summary>Before</summary>${before('wide')}${before('narrow')}</details>
${page.lineUp ? `<details><summary>Among the others, before</summary>${lineUp(before('wide'), page.lineUp, page)}</details>` : ''}
<fieldset><legend>May it go out like this?</legend>${radio('yes', 'Yes')}${radio('no', 'No')}
<label class="note">A note <textarea rows="2" maxlength="2000"></textarea></label></fieldset></section>`
}

const css = `:root{color-scheme:light}body{margin:0;background:#ece6da;color:#1b2733;font:15px/1.5 Georgia,serif}
main{max-width:760px;margin:0 auto;padding:32px 20px 120px}h1{font-size:28px;margin:0 0 4px}h2{font-size:20px;margin:0}h3{font-size:15px;margin:14px 0 4px}
section{background:#fbf8f1;border:1px solid #d8cfbe;padding:22px 26px;margin:22px 0;overflow-x:auto}.address{margin:2px 0;color:#4c5763;font-size:13px;overflow-wrap:anywhere}
.result{font-family:Arimo,Arial,sans-serif;font-kerning:normal;text-rendering:geometricPrecision;margin:10px 0 18px}.result p{margin:0}.result span{display:block;white-space:pre}
.trail{font-size:14px;line-height:22px;color:#4c5763;overflow:hidden;white-space:nowrap;text-overflow:ellipsis}.title{font-size:20px;line-height:26px;color:#1f4e79}.description{font-size:14px;line-height:22px}
.result i{font-style:normal;color:#77705f}.none{color:#a3243b;font-style:italic}.narrow{border-left:3px solid #d8cfbe;padding-left:14px;box-sizing:content-box}
.line-up{list-style-position:outside;padding-left:28px}.line-up li{border-top:1px solid #e4dccb;padding-top:4px;color:#4c5763}.ours{border-left:3px solid #1f4e79;padding-left:10px;margin-left:-13px}.ours .whose{margin:4px 0 -8px;font-weight:bold;color:#1b2733}
[hidden]{display:none}.takes{clear:both}.takes .take{display:block;margin:2px 0;clear:none}.takes legend{float:none;display:block}
details{margin:8px 0}summary{cursor:pointer;text-decoration:underline}ul{padding:0;list-style:none}li{margin:6px 0}
fieldset{border:0;border-top:1px solid #d8cfbe;margin:14px 0 0;padding:12px 0 0}legend{float:left;margin-right:18px;font-weight:bold}label{margin-right:18px}.note{display:block;margin:10px 0 0;clear:both}
textarea,input[type=text]{display:block;width:100%;box-sizing:border-box;font:inherit;border:1px solid #78808a;background:#fff;padding:6px 8px}
footer{position:fixed;inset:auto 0 0;background:#1b2733;color:#fbf8f1;padding:12px 20px;display:flex;gap:16px;align-items:center;flex-wrap:wrap}footer label{display:flex;gap:8px;align-items:center;margin:0}footer input[type=text]{width:200px;color:#1b2733}
button{font:inherit;font-weight:bold;padding:7px 18px;border:1px solid #fbf8f1;background:#fbf8f1;color:#1b2733;cursor:pointer}:focus-visible{outline:2px solid #1f4e79;outline-offset:2px}footer :focus-visible{outline-color:#fbf8f1}`

/** Runs in the file itself: gathers what was ticked and saves it. It builds no markup from what it reads. */
const script = `(function(){
var saved=true,status=document.getElementById('status');
function answers(){return Array.prototype.map.call(document.querySelectorAll('section'),function(s){
var r=s.querySelector('input[name^="answer-"]:checked');var takes={};Array.prototype.forEach.call(s.querySelectorAll('input[data-role]:checked'),function(t){if(t.value)takes[t.dataset.role]=t.value});
return{path:s.dataset.path,of:s.dataset.of,answer:r?r.value:null,note:s.querySelector('textarea').value,takes:takes}}).filter(function(a){return a.answer||a.note.trim()||a.takes.title||a.takes.description})}
function count(){saved=false;var n=answers().length;status.textContent=n+' of '+document.querySelectorAll('section').length+' answered'}
document.addEventListener('input',count);
document.addEventListener('change',function(e){var t=e.target;if(!t.dataset.role)return;
Array.prototype.forEach.call(t.closest('section').querySelectorAll('div[data-role="'+t.dataset.role+'"]'),function(d){d.hidden=d.dataset.take!==t.value})});
document.getElementById('save').addEventListener('click',function(){
var file={format:document.body.dataset.format,version:1,site:document.body.dataset.site,made:document.body.dataset.made,by:document.getElementById('by').value,answers:answers()};
var a=document.createElement('a');a.href=URL.createObjectURL(new Blob([JSON.stringify(file,null,1)],{type:'application/json'}));
a.download='answers.json';a.click();saved=true;status.textContent='Saved. Send answers.json back.'});
addEventListener('beforeunload',function(e){if(!saved)e.preventDefault()})})()`

/** What an answer file says it is. */
export const ANSWERS = 'keen-quill-answers'

/** The file's whole text. Everything that comes from pages is escaped: nothing in it can become markup or script. */
export function writeApproval({ site, date, pages, fonts }: ApprovalFile): string {
  const faces = fonts
    .map(
      ({ base64, range }) =>
        `@font-face{font-family:Arimo;src:url(data:font/woff2;base64,${base64}) format("woff2");unicode-range:${range}}`,
    )
    .join('')
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; font-src data:; form-action 'none'; base-uri 'none'">
<meta name="robots" content="noindex"><title>For approval: ${escapeMarkup(site)}</title><style>${faces}${css}</style></head>
<body data-format="${ANSWERS}" data-site="${escapeMarkup(site)}" data-made="${escapeMarkup(date)}"><main><h1>For approval: ${escapeMarkup(site)}</h1>
<p>${pages.length === 1 ? 'One page' : `${pages.length} pages`}, drawn as a search result shows them, wide and narrow. Choose among the wordings where there are several, tick yes or no, write a note where you like, then save the answers and send the file back. Nothing leaves this file until you save.</p>
${pages.map(pageSection).join('\n')}</main>
<footer><label>Your name <input type="text" id="by" maxlength="200" autocomplete="name"></label><button type="button" id="save">Save the answers</button><span id="status" role="status"></span></footer>
<script>${script}</script></body></html>
`
}
