/**
 * The approval file: one HTML file with pages' results before and after, in which a colleague without the application
 * ticks yes or no or writes a note, and saves the answers as a file that the application reads back. It loads nothing
 * and sends nothing: its policy forbids both.
 */
import { escapeMarkup } from '../strings.ts'
import Joi from 'joi'
import { CUT_SIGN } from '../measure/cut.ts'
import { measure, type Screen, type Slots } from '../measure/snippet.ts'
import { shownAddress } from '../addresses/addresses.ts'
import { hash } from '../hash.ts'

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
}

/** Tells whether an answer is about the wording that stands now. */
export const wordingHash = ({ title, description, url }: Wording): string =>
  hash(JSON.stringify([title, description, url]))

export interface ApprovalFile {
  site: string
  /** YYYY-MM-DD */
  date: string
  pages: ApprovalPage[]
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

function result(wording: Wording, screen: Screen, { slots, lang }: ApprovalPage): string {
  const trail = shownAddress(wording.url).join(' › ')
  return `<div class="result ${screen}" style="width:${slots.title[screen].column}px"${lang ? ` lang="${escapeMarkup(lang)}"` : ''}><p class="trail">${escapeMarkup(trail)}</p>${lines(wording.title, 'title', screen, slots)}${lines(wording.description, 'description', screen, slots)}</div>`
}

function pageSection(page: ApprovalPage, i: number): string {
  const takes = (['title', 'description'] as const)
    .flatMap((role) => page.takes[role].map((text) => `<li>${lines(text, role, 'wide', page.slots)}</li>`))
    .join('')
  const radio = (answer: string, label: string) =>
    `<label><input type="radio" name="answer-${i}" value="${answer}"> ${label}</label>`
  const addressChanged = page.before.url !== page.after.url
  return `<section data-path="${escapeMarkup(page.path)}" data-of="${wordingHash(page.after)}">
<h2>${escapeMarkup(page.after.title || page.path)}</h2>
<p class="address">${addressChanged ? `<del>${escapeMarkup(page.before.url)}</del> becomes ` : ''}${escapeMarkup(page.after.url)}</p>
<h3>After</h3>${result(page.after, 'wide', page)}${result(page.after, 'narrow', page)}
<details><summary>Before</summary>${result(page.before, 'wide', page)}${result(page.before, 'narrow', page)}</details>
${takes ? `<details><summary>Other wordings that were considered</summary><ul class="result wide" style="width:${page.slots.title.wide.column}px">${takes}</ul></details>` : ''}
<fieldset><legend>May it go out like this?</legend>${radio('yes', 'Yes')}${radio('no', 'No')}
<label class="note">A note <textarea rows="2" maxlength="2000"></textarea></label></fieldset></section>`
}

const css = `:root{color-scheme:light}body{margin:0;background:#ece6da;color:#1b2733;font:15px/1.5 Georgia,serif}
main{max-width:760px;margin:0 auto;padding:32px 20px 120px}h1{font-size:28px;margin:0 0 4px}h2{font-size:20px;margin:0}h3{font-size:15px;margin:14px 0 4px}
section{background:#fbf8f1;border:1px solid #d8cfbe;padding:22px 26px;margin:22px 0;overflow-x:auto}.address{margin:2px 0;color:#4c5763;font-size:13px;overflow-wrap:anywhere}
.result{font-family:Arimo,Arial,sans-serif;font-kerning:normal;text-rendering:geometricPrecision;margin:10px 0 18px}.result p{margin:0}.result span{display:block;white-space:pre}
.trail{font-size:14px;line-height:22px;color:#4c5763;overflow:hidden;white-space:nowrap;text-overflow:ellipsis}.title{font-size:20px;line-height:26px;color:#1f4e79}.description{font-size:14px;line-height:22px}
.result i{font-style:normal;color:#77705f}.none{color:#a3243b;font-style:italic}.narrow{border-left:3px solid #d8cfbe;padding-left:14px;box-sizing:content-box}
details{margin:8px 0}summary{cursor:pointer;text-decoration:underline}ul{padding:0;list-style:none}li{margin:6px 0}
fieldset{border:0;border-top:1px solid #d8cfbe;margin:14px 0 0;padding:12px 0 0}legend{float:left;margin-right:18px;font-weight:bold}label{margin-right:18px}.note{display:block;margin:10px 0 0;clear:both}
textarea,input[type=text]{display:block;width:100%;box-sizing:border-box;font:inherit;border:1px solid #78808a;background:#fff;padding:6px 8px}
footer{position:fixed;inset:auto 0 0;background:#1b2733;color:#fbf8f1;padding:12px 20px;display:flex;gap:16px;align-items:center;flex-wrap:wrap}footer label{display:flex;gap:8px;align-items:center;margin:0}footer input[type=text]{width:200px;color:#1b2733}
button{font:inherit;font-weight:bold;padding:7px 18px;border:1px solid #fbf8f1;background:#fbf8f1;color:#1b2733;cursor:pointer}:focus-visible{outline:2px solid #1f4e79;outline-offset:2px}footer :focus-visible{outline-color:#fbf8f1}`

/** Runs in the file itself: gathers what was ticked and saves it. It builds no markup from what it reads. */
const script = `(function(){
var saved=true,status=document.getElementById('status');
function answers(){return Array.prototype.map.call(document.querySelectorAll('section'),function(s){
var r=s.querySelector('input:checked');return{path:s.dataset.path,of:s.dataset.of,answer:r?r.value:null,note:s.querySelector('textarea').value}}).filter(function(a){return a.answer||a.note.trim()})}
function count(){saved=false;var n=answers().length;status.textContent=n+' of '+document.querySelectorAll('section').length+' answered'}
document.addEventListener('input',count);
document.getElementById('save').addEventListener('click',function(){
var file={format:document.body.dataset.format,version:1,site:document.body.dataset.site,made:document.body.dataset.made,by:document.getElementById('by').value,answers:answers()};
var a=document.createElement('a');a.href=URL.createObjectURL(new Blob([JSON.stringify(file,null,1)],{type:'application/json'}));
a.download='answers.json';a.click();saved=true;status.textContent='Saved. Send answers.json back.'});
addEventListener('beforeunload',function(e){if(!saved)e.preventDefault()})})()`

const FORMAT = 'keen-quill-answers'

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
<body data-format="${FORMAT}" data-site="${escapeMarkup(site)}" data-made="${escapeMarkup(date)}"><main><h1>For approval: ${escapeMarkup(site)}</h1>
<p>${pages.length === 1 ? 'One page' : `${pages.length} pages`}, drawn as a search result shows them, wide and narrow. Tick yes or no, write a note where you like, then save the answers and send the file back. Nothing leaves this file until you save.</p>
${pages.map(pageSection).join('\n')}</main>
<footer><label>Your name <input type="text" id="by" maxlength="200" autocomplete="name"></label><button type="button" id="save">Save the answers</button><span id="status" role="status"></span></footer>
<script>${script}</script></body></html>
`
}

export interface GivenAnswer {
  path: string
  of: string
  answer: 'yes' | 'no' | null
  note: string
}
export interface Answers {
  site: string
  made: string
  by: string
  answers: GivenAnswer[]
}

const schema = Joi.object({
  format: Joi.valid(FORMAT).required(),
  version: Joi.valid(1).required(),
  site: Joi.string().allow('').max(500).required(),
  made: Joi.string().allow('').max(40).required(),
  by: Joi.string().allow('').max(200).required(),
  answers: Joi.array()
    .items(
      Joi.object({
        path: Joi.string().max(2000).required(),
        of: Joi.string().max(40).required(),
        answer: Joi.valid('yes', 'no', null).required(),
        note: Joi.string().allow('').max(2000).required(),
      }),
    )
    .max(5000)
    .required(),
})

/** An answer file as the approval file saved it; or why it is none. */
export function readAnswers(text: string): { ok: true; answers: Answers } | { ok: false; why: string } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return {
      ok: false,
      why: 'The file is not an answer file: it is not valid JSON. Ask for answers.json as it was saved.',
    }
  }
  const { value, error } = schema.validate(json)
  if (error) return { ok: false, why: `The file is not an answer file, or is damaged: ${error.message}.` }
  const { site, made, by, answers } = value as Answers
  return { ok: true, answers: { site, made, by, answers } }
}
