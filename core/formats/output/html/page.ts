import { MOTION_CSS } from "@unitext/core/draw";

/** The style of the page: one slide fills the window; nothing moves with reduced motion. */
export const STYLE = `
*{box-sizing:border-box}:root{--bar:3rem;font-size:clamp(16px,.75vw,32px)}html,body{margin:0;height:100%;background:#16211f;color:#f4f4f0}body{font:1rem/1.45 system-ui,sans-serif}
main{height:100%;display:grid;place-items:center}
section{position:relative;width:min(100vw,calc((100vh - var(--bar))*var(--shape)));margin:0 auto var(--bar)}
section[hidden]{display:none}section svg{display:block;width:100%;height:auto}
.words,.said{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%);white-space:nowrap}
section a.link{position:absolute;border-radius:2px}section a.link:focus-visible,button:focus-visible{outline:3px solid #dc94bc;outline-offset:2px}
.film,.sound{position:absolute}.film{background:#000;object-fit:contain}.sound button{width:100%;height:100%;min-width:2.5rem;min-height:2.5rem;background:#16211fcc}
[data-step].later{visibility:hidden}
.sources{position:absolute;right:.5rem;bottom:.5rem;max-width:60%;padding:0 .5rem;background:#1e2b29;font-size:.8rem;border-radius:4px}.sources p{margin:.25rem 0}
nav{position:fixed;inset:auto 0 0;height:var(--bar);display:flex;flex-wrap:wrap;align-content:center;gap:.25rem .5rem;align-items:center;justify-content:center;background:#1e2b29}
nav span{white-space:nowrap;font-variant-numeric:tabular-nums}@media(max-width:52rem){:root{--bar:5.5rem}}@media(max-width:26rem){nav button{font-size:.85rem;padding:0 .5rem}}
button{font:inherit;white-space:nowrap;min-width:2.5rem;min-height:2rem;padding:0 .75rem;border:1px solid #3a4a47;border-radius:4px;background:#16211f;color:#f4f4f0;cursor:pointer}
button:disabled{opacity:.45;cursor:default}
.dark main{visibility:hidden}
dialog{max-width:40rem;border:1px solid #3a4a47;background:#1e2b29;color:inherit}dialog td{padding:.1rem .75rem}
${MOTION_CSS}
@media print{nav,dialog,.film,.sound{display:none}html,body,main{height:auto;display:block;background:#fff}section,section[hidden]{display:block;width:100%;margin:0;break-after:page}[data-step].later{visibility:visible}}
`;

/**
 * The script of the page: along the main line, into details on request, points one at a time; each slide has an
 * address; notes in a window of their own. The mouse wheel does nothing.
 */
export const SCRIPT = `
"use strict";
const slides=[...document.querySelectorAll("section")],byId=new Map(slides.map(s=>[s.id,s]));
const nav=document.querySelector("nav"),said=document.querySelector(".said"),keys=document.querySelector("dialog");
let current=slides[0],step=0,begun=Date.now(),timer=0,win=null;
const parentOf=s=>s.dataset.parent||"",row=s=>slides.filter(o=>parentOf(o)===parentOf(s));
const beyond=s=>{const r=row(s),n=r[r.indexOf(s)+1];if(n)return n;const up=byId.get(parentOf(s));return up?beyond(up):undefined};
const before=s=>{const r=row(s),i=r.indexOf(s);return i>0?r[i-1]:byId.get(parentOf(s))};
const below=s=>slides.find(o=>parentOf(o)===s.id);
const stepsOf=s=>Math.max(0,...[...s.querySelectorAll("[data-step]")].map(g=>+g.dataset.step));
const clock=()=>{const t=Math.floor((Date.now()-begun)/1000);return Math.floor(t/60)+":"+String(t%60).padStart(2,"0")};
const quiet=()=>{for(const m of document.querySelectorAll("video,audio"))m.pause()};
for(const m of document.querySelectorAll("audio")){const b=m.nextElementSibling,is=()=>{b.setAttribute("aria-pressed",String(!m.paused));b.textContent=m.paused?"\u25b6":"\u25a0"};
b.addEventListener("click",()=>{if(m.paused)m.play();else{m.pause();m.currentTime=0}});for(const e of ["play","pause","ended"])m.addEventListener(e,is)}
function paint(){for(const g of current.querySelectorAll("[data-step]"))g.classList.toggle("later",+g.dataset.step>step)}
function tell(){if(!win||win.closed)return;const d=win.document,n=current.querySelector("template.notes"),next=beyond(current);
d.body.replaceChildren();const add=(tag,text)=>{const e=d.createElement(tag);if(text)e.textContent=text;d.body.append(e);return e};
add("p",slides.indexOf(current)+1+" / "+slides.length+" · "+clock());add("h1",current.dataset.name);const b=add("div");if(n)b.append(d.importNode(n.content,true));else b.textContent="This slide has no notes.";
if(next)add("p","Next: "+next.dataset.name).style.opacity=.7}
function show(s,at,first){if(!s)return;for(const o of slides)o.hidden=o!==s;if(current!==s)quiet();current=s;step=at||0;s.classList.toggle("still",step>0);paint();
document.querySelector("[data-at]").textContent=slides.indexOf(s)+1+" / "+slides.length;
document.querySelector("[data-do=deeper]").disabled=!below(s);document.querySelector("[data-do=up]").disabled=!parentOf(s);
if(location.hash.slice(1)!==s.id)history.replaceState(null,"","#"+s.id);if(!first)said.textContent=s.getAttribute("aria-label");tell();
arm()}
function arm(){clearTimeout(timer);const wait=+current.dataset.delay,turns=stepsOf(current)+1;if(wait)timer=setTimeout(()=>{if(step<turns-1){step++;paint();arm()}
else show(beyond(current)||(document.body.dataset.once===undefined?slides[0]:undefined))},wait*1000/turns)}
if(slides.some(s=>s.dataset.delay)&&navigator.wakeLock){const awake=()=>document.visibilityState==="visible"&&navigator.wakeLock.request("screen").catch(()=>{});document.addEventListener("visibilitychange",awake);awake()}
const acts={next(){if(step<stepsOf(current)){step++;paint()}else show(beyond(current))},back(){if(step>0){step--;paint()}else{const b=before(current);show(b,b&&stepsOf(b))}},
deeper(){show(below(current))},up(){show(byId.get(parentOf(current)))},first(){show(slides[0])},last(){show(slides.at(-1))},
dark(){document.body.classList.toggle("dark")},full(){document.fullscreenElement?document.exitFullscreen():document.documentElement.requestFullscreen()},
keys(){keys.open?keys.close():keys.showModal()},
notes(){win=window.open("","notes","width=640,height=720");if(!win){said.textContent="The window for the notes was blocked.";return}
win.document.title="Notes";win.document.body.style.cssText="margin:1.5rem;font:22px/1.5 system-ui,sans-serif;white-space:pre-wrap";win.onkeydown=onkey;tell();setInterval(tell,1000)}};
const map={ArrowRight:"next"," ":"next",PageDown:"next",ArrowLeft:"back",PageUp:"back",ArrowDown:"deeper",ArrowUp:"up",Home:"first",End:"last",n:"notes",k:"dark",f:"full","?":"keys"};
function onkey(e){if(e.ctrlKey||e.metaKey||e.altKey)return;if(e.target.closest&&(e.key===" "&&e.target.closest("button,a")||/^( |Arrow.*)$/.test(e.key)&&e.target.closest("video")))return;const act=map[e.key.length===1?e.key.toLowerCase():e.key];if(!act)return;e.preventDefault();acts[act]()}
addEventListener("keydown",onkey);nav.addEventListener("click",e=>{const act=e.target.closest("[data-do]");if(act)acts[act.dataset.do]()});
addEventListener("hashchange",()=>show(byId.get(decodeURIComponent(location.hash.slice(1))),0));
show(byId.get(decodeURIComponent(location.hash.slice(1)))||slides[0],0,true);
`;
