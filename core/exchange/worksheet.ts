/**
 * The worksheet: one file that needs nothing else, for whoever types the changes into a CMS. Page by page, each field
 * with a button that copies it and a box that remembers what is done. Everything that comes from pages is escaped.
 */
import { hash } from '../hash.ts'
import { escapeMarkup } from '../strings.ts'
import type { Redirect } from '../site/moves.ts'
import type { ChangedPage } from './hand-off.ts'

export interface Worksheet {
  site: string
  /** YYYY-MM-DD */
  date: string
  pages: readonly ChangedPage[]
  redirects: readonly Redirect[]
}

const css = `:root{color-scheme:light}body{margin:0;background:#ece6da;color:#1b2733;font:15px/1.5 Georgia,serif}
main{max-width:900px;margin:0 auto;padding:28px 20px 90px}h1{font-size:27px;margin:0 0 4px}h2{font-size:18px;margin:0;overflow-wrap:anywhere}a{color:#1f4e79;text-underline-offset:3px}
section{background:#fbf8f1;border:1px solid #d8cfbe;padding:18px 22px;margin:18px 0}section.done h2{color:#6a7280;text-decoration:line-through}
.field{display:grid;grid-template-columns:26px 150px minmax(0,1fr) auto;gap:4px 14px;align-items:start;border-top:1px solid #e6ddcc;padding:9px 0}
.field.done .after{color:#6a7280}.name{font-weight:bold}.before{grid-column:3;color:#5d6671;font-size:13px;overflow-wrap:anywhere}
.after{margin:0;white-space:pre-wrap;overflow-wrap:anywhere;font:inherit;max-height:16em;overflow:auto}.after.code{font:12.5px/1.5 monospace;background:#f2ecdf;padding:8px}
.gone{font-style:italic;color:#a3243b}.refused{border-left:2px solid #a3243b;padding-left:10px;font-size:13px}
button{font:inherit;font-size:14px;padding:3px 12px;border:1px solid #1b2733;background:#fbf8f1;color:#1b2733;cursor:pointer}button:hover{background:#e7ecf0}
:focus-visible{outline:2px solid #1f4e79;outline-offset:2px}input[type=checkbox]{width:17px;height:17px;margin:4px 0 0}
footer{position:fixed;inset:auto 0 0;background:#1b2733;color:#fbf8f1;padding:11px 20px;display:flex;gap:20px;align-items:center;flex-wrap:wrap}footer label{display:flex;gap:8px;align-items:center}
body.left section.done,body.left .field.done{display:none}table{border-collapse:collapse;width:100%;font-size:13px}td,th{text-align:left;border-top:1px solid #e6ddcc;padding:5px 12px 5px 0;overflow-wrap:anywhere}
@media(max-width:640px){.field{grid-template-columns:26px minmax(0,1fr)}.field>*{grid-column:2}.field>input{grid-column:1;grid-row:1}}`

/** Runs in the file itself. It builds no markup from what it reads. */
const script = `(function(){
var key='worksheet '+document.body.dataset.key,done={};
try{done=JSON.parse(localStorage.getItem(key)||'{}')}catch(e){}
var boxes=[].slice.call(document.querySelectorAll('.field>input'));
function show(){var n=0;boxes.forEach(function(b){b.checked=done[b.id]===1;if(b.checked)n++;b.parentNode.classList.toggle('done',b.checked)});
[].forEach.call(document.querySelectorAll('section[data-page]'),function(s){s.classList.toggle('done',!s.querySelector('.field>input:not(:checked)'))});
document.getElementById('count').textContent=n+' of '+boxes.length+' done'}
document.addEventListener('change',function(e){if(e.target.id==='left'){document.body.classList.toggle('left',e.target.checked);return}
if(!e.target.closest('.field'))return;if(e.target.checked)done[e.target.id]=1;else delete done[e.target.id];
try{localStorage.setItem(key,JSON.stringify(done))}catch(x){}show()});
function fallBack(t){var a=document.createElement('textarea');a.value=t;document.body.appendChild(a);a.select();document.execCommand('copy');a.remove()}
document.addEventListener('click',function(e){var b=e.target.closest('button[data-copy]');if(!b)return;
var t=document.getElementById(b.dataset.copy).textContent,said=function(){b.textContent='Copied';setTimeout(function(){b.textContent='Copy'},1500)};
if(navigator.clipboard)navigator.clipboard.writeText(t).then(said,function(){fallBack(t);said()});else{fallBack(t);said()}});
show()})()`

const isCode = (field: string) => field.startsWith('Structured data') || field === 'Links that follow'

function fieldBlock(page: ChangedPage, index: number): string {
  const { field, before, after } = page.changes[index]!
  const id = `f${hash(`${page.id} ${field} ${after}`)}`
  const value =
    after === ''
      ? '<p class="after gone">take it out</p>'
      : `<pre class="after${isCode(field) ? ' code' : ''}" id="${id}-text">${escapeMarkup(after)}</pre>`
  return `<div class="field"><input type="checkbox" id="${id}" aria-label="${escapeMarkup(field)}, done"><label class="name" for="${id}">${escapeMarkup(field)}</label>
${value}${after === '' ? '<span></span>' : `<button type="button" data-copy="${id}-text" aria-label="Copy ${escapeMarkup(field)}">Copy</button>`}
<div class="before">${before === '' ? 'nothing there before' : `before: <del>${escapeMarkup(before)}</del>`}</div></div>`
}

const pageSection = (page: ChangedPage): string =>
  `<section data-page="${escapeMarkup(page.path)}"><h2><a href="${escapeMarkup(page.url)}" rel="noreferrer">${escapeMarkup(page.url)}</a></h2>
${page.changes.map((_, i) => fieldBlock(page, i)).join('\n')}
${page.refused.map((why) => `<p class="refused">Not applied: ${escapeMarkup(why)}</p>`).join('')}</section>`

const redirectTable = (redirects: readonly Redirect[]): string =>
  redirects.length === 0
    ? ''
    : `<section><h2>Redirects to set up</h2><table><tr><th>From</th><th>To</th><th>Status</th></tr>${redirects
        .map(
          (r) =>
            `<tr><td>${escapeMarkup(r.from)}</td><td>${escapeMarkup(r.to)}</td><td>${escapeMarkup(r.status)}</td></tr>`,
        )
        .join('')}</table></section>`

export function writeWorksheet({ site, date, pages, redirects }: Worksheet): string {
  const changed = pages.filter((page) => page.changes.length + page.refused.length > 0)
  const key = `${site} ${date} ${hash(changed.map((p) => p.id).join(' '))}`
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; form-action 'none'; base-uri 'none'">
<meta name="robots" content="noindex"><title>Worksheet: ${escapeMarkup(site)}</title><style>${css}</style></head>
<body data-key="${escapeMarkup(key)}"><main><h1>Worksheet: ${escapeMarkup(site)}</h1>
<p>${changed.length === 1 ? 'One page' : `${changed.length} pages`}, as of ${escapeMarkup(date)}. Copy each field into the CMS and tick it off; this browser remembers the ticks. Nothing leaves this file.</p>
${redirectTable(redirects)}
${changed.map(pageSection).join('\n')}</main>
<footer><span id="count" role="status"></span><label><input type="checkbox" id="left"> Show only what is left</label></footer>
<script>${script}</script></body></html>
`
}
