"""A copy to lend: one HTML file that works without a server, with marks that its reader sends back."""

import json
from dataclasses import dataclass
from html import escape

FORMAT, VERSION = "kobrix-remarks", 1
PLACE = '<figure id="force-line"></figure>'  # where the drawing goes, by who has one

_CSS = """
*{box-sizing:border-box}body{margin:0 auto;max-width:1280px;padding:14px 16px 40px;background:#f6f3ea;color:#1f1e1b;font:500 15px/1.36 "Barlow Semi Condensed",sans-serif}
h1{font-size:21px;margin:0}h2{font-size:17px;margin:22px 0 4px;border-top:1px solid #1f1e1b;padding-top:8px}p{margin:4px 0}.q{color:#56524a}
figure{margin:12px 0;overflow-x:auto}figure svg{display:block;min-width:1040px;width:100%;height:auto}
table{border-collapse:collapse;width:100%}th{text-align:left;font-weight:500;color:#56524a}th,td{border-bottom:1px solid #cfc8b7;padding:4px 12px 4px 0;vertical-align:top}
details{margin:0}summary{cursor:pointer;min-height:24px}details p{margin:2px 0 2px 14px}
.f{display:grid;grid-template-columns:84px 1fr;gap:2px 10px;border-bottom:1px solid #cfc8b7;padding:6px 0}.f b{text-transform:capitalize}.danger b{color:#a00f2e}.caution b{color:#7a4a00}
button{font:600 14px sans-serif;min-height:32px;border:1px solid #1f1e1b;background:none;color:inherit;padding:0 10px;cursor:pointer}.m{border:0;text-decoration:underline;padding:0;min-height:24px;color:#8a2c0b}
textarea,input{font:500 16px sans-serif;border:0;border-bottom:2px solid #1f1e1b;background:#ece7da;padding:6px 8px;width:100%;color:inherit}.mk{border-left:4px solid #b53a0f;padding-left:10px;margin:4px 0 8px}
.bar{position:sticky;bottom:0;background:#f6f3ea;border-top:1px solid #1f1e1b;padding:8px 0;display:flex;flex-wrap:wrap;gap:8px 16px;align-items:center}.bar input{width:200px}
@media (pointer:coarse){button,.m,summary{min-height:44px}}@media print{.bar,.m{display:none}body{background:none}}
"""
# A mark is a sentence at a place; all of them go back as one small file.
_JS = """
const told=JSON.parse(document.getElementById('of').textContent),marks=new Map();
const key=()=>[...crypto.getRandomValues(new Uint8Array(16))].map(b=>b.toString(16).padStart(2,'0')).join('');
function count(){const n=[...marks.values()].filter(m=>m.words.trim()).length;
 document.getElementById('n').textContent=n===0?'No remark yet.':n===1?'1 remark.':n+' remarks.';document.getElementById('save').disabled=n===0}
document.querySelectorAll('[data-place]').forEach(at=>{const b=document.createElement('button');b.className='m';b.type='button';b.textContent='remark';
 b.setAttribute('aria-label','Remark on '+at.dataset.place);at.append(' ',b);
 b.addEventListener('click',()=>{if(marks.has(at.dataset.place))return marks.get(at.dataset.place).box.focus();
  const note=document.createElement('div');note.className='mk';const box=document.createElement('textarea');box.rows=2;box.maxLength=400;
  box.setAttribute('aria-label','Remark on '+at.dataset.place);note.append(box);at.append(note);
  const mark={key:key(),place:at.dataset.place,words:'',box};marks.set(mark.place,mark);
  box.addEventListener('input',()=>{mark.words=box.value;count()});box.focus()})});
document.getElementById('save').addEventListener('click',()=>{const by=document.getElementById('by').value.trim();
 const remarks=[...marks.values()].filter(m=>m.words.trim()).map(({key,place,words})=>({key,place,words:words.trim()}));
 const blob=new Blob([JSON.stringify({...told,by,remarks},null,1)],{type:'application/json'});
 const a=document.createElement('a');a.href=URL.createObjectURL(blob);a.download='remarks.kobrix.json';a.click()});
addEventListener('beforeunload',e=>{if(!document.getElementById('save').disabled)e.preventDefault()});count();
"""


@dataclass(frozen=True)
class Figure:
    """A figure as found and in the plan."""

    words: str
    found: str
    plan: str


@dataclass(frozen=True)
class Step:
    """How a figure came about: the formula, the same with its numbers, and its source."""

    name: str
    formula: str
    numbers: str
    source: str


@dataclass(frozen=True)
class Said:
    """A finding: its level, its sentence, why, and its chance in words."""

    level: str
    sentence: str
    reason: str
    chance: str


@dataclass(frozen=True)
class Entry:
    """An entry: what it is of, what it is, as it was typed, and how sure that is."""

    part: str
    name: str
    text: str
    standing: str


@dataclass(frozen=True)
class Lent:
    """What is lent: the job, the setup and the day; its figures with their working, its findings and its entries."""

    job: str
    setup: str
    day: str
    figures: tuple[Figure, ...]
    working: tuple[Step, ...]
    findings: tuple[Said, ...]
    entries: tuple[Entry, ...]


def _place(words: str) -> str:
    return f' data-place="{escape(words[:80])}"'


def _figures(lent: Lent) -> str:
    if not lent.figures:
        return "<p>Not known yet: entries are missing.</p>"
    rows = "".join(
        f"<tr><td{_place(f.words)}>{escape(f.words)}</td><td>{escape(f.found)}</td><td>{escape(f.plan)}</td></tr>"
        for f in lent.figures
    )
    return f"<table><tr><td></td><th>as found</th><th>{escape(lent.setup)}</th></tr>{rows}</table>"


def _working(lent: Lent) -> str:
    steps = "".join(
        f"<details><summary>{escape(s.name)}: {escape(s.numbers)}</summary><p>{escape(s.formula)}</p><p class=q>{escape(s.source)}</p></details>"
        for s in lent.working
    )
    return f"<h2>How the push becomes the stop</h2>{steps}" if steps else ""


def _findings(lent: Lent) -> str:
    rows = "".join(
        f'<div class="f {escape(f.level)}"><b>{escape(f.level)}</b><div{_place(f.sentence)}>{escape(f.sentence)}'
        f"{f' <span class=q>{escape(f.chance)}</span>' if f.chance else ''}<p class=q>{escape(f.reason)}</p></div></div>"
        for f in lent.findings
    )
    return rows or "<p>Nothing is found yet: entries are missing.</p>"


def _entries(lent: Lent) -> str:
    rows = "".join(
        f"<tr><td>{escape(e.part)}</td><td{_place(f'{e.part}: {e.name}')}>{escape(e.name)}</td><td>{escape(e.text)}</td><td class=q>{escape(e.standing)}</td></tr>"
        for e in lent.entries
    )
    return f"<table><tr><th>part</th><th>entry</th><th>as typed</th><th>how sure</th></tr>{rows}</table>"


def as_html(lent: Lent) -> str:
    """The copy as one file, with a place for the force line's drawing.

    `lent` [record].
    """
    of = {"format": FORMAT, "version": VERSION, "job": lent.job, "setup": lent.setup}
    safe = json.dumps(of).replace("<", "\\u003c")
    return (
        '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">'
        f"<title>{escape(lent.job)}, {escape(lent.setup)}</title><style>{_CSS}</style></head><body><main>"
        f"<h1>{escape(lent.job)}</h1><p>{escape(lent.setup)}, a copy to read, of {escape(lent.day)}. Nothing in it changes the job. Press <em>remark</em> where you see "
        "something; save your remarks at the foot, and send that small file back.</p>"
        "<p class=q>Predicted figures are estimates, to be proven by test. Makers' instructions, road law and inspection come first.</p>"
        f'{PLACE}<h2>Figures</h2>{_figures(lent)}<h2>What is found</h2>{_findings(lent)}{_working(lent)}<h2>What was entered</h2>{_entries(lent)}'
        '<div class="bar"><label for="by">your name</label><input id="by" maxlength="60" autocomplete="name"><button id="save" type="button">Save my remarks</button><span id="n" role="status"></span></div></main>'
        f'<script type="application/json" id="of">{safe}</script><script>{_JS}</script></body></html>'
    )  # fmt: skip
