"""The yard card as one file: works on a phone without network or server, and prints on A6 with a ruler at full size."""

import json
import math
from html import escape

from kobrix.stages.fit.shapes_elsewhere import YardBand, YardView

WIDE, HIGH = 300, 54  # px of a band's plot
_CSS = """
*{box-sizing:border-box}body{margin:0 auto;max-width:420px;padding:12px;background:#f6f3ea;color:#1f1e1b;font:500 15px/1.34 sans-serif}
h1{font-size:18px;margin:0 0 4px}h2{font-size:15px;margin:14px 0 2px}p{margin:4px 0}small{color:#56524a;font-size:13px}
label{display:block;font-size:13px;color:#56524a}input,select{font:600 18px sans-serif;min-height:44px;width:100%;border:0;border-bottom:2px solid #1f1e1b;background:#ece7da;padding:0 8px;color:inherit}
form{display:grid;grid-template-columns:1fr 1fr;gap:8px}output{display:block;border:2px solid #1f1e1b;padding:8px;margin:10px 0;font-size:17px;min-height:44px}
output[data-v=keep]{background:#1f1e1b;color:#f6f3ea}output[data-v=leave]{border-color:#a00f2e;color:#a00f2e}
svg{display:block;overflow:visible}.c{fill:none;stroke:#1f1e1b;stroke-width:1.6}.v{fill:none;stroke:#1f1e1b;stroke-width:1.3;stroke-dasharray:4 3}
.k{fill:#ece7da}.l{stroke:#8c877b;stroke-width:1}.n{stroke:#b53a0f;stroke-width:2}text{font:12px sans-serif;fill:#1f1e1b}
table{border-collapse:collapse;width:100%;font-size:13px}td{border-bottom:1px solid #cfc8b7;padding:2px 6px 2px 0}.ruler{display:none}
@media print{@page{size:105mm 148mm;margin:5mm}body{background:none;padding:0;font-size:9pt;max-width:95mm}form,output{display:none}.ruler{display:block;margin-top:3mm}h2{margin:2mm 0 0;font-size:9pt}}
"""
_JS = """
const bands=JSON.parse(document.getElementById('bands').textContent),keep=%KEEP%;
function at(points,x,key){for(let i=1;i<points.length;i++){const a=points[i-1],b=points[i];
 if(x>=a.value&&x<=b.value){const f=(x-a.value)/(b.value-a.value||1),p=a[key]??0,q=b[key]??0;return p+(q-p)*f}}return null}
function number(t){t=t.replace(',','.').trim();const f=t.match(/^(?:(\\d+)\\s+)?(\\d+)\\s*\\/\\s*(\\d+)/);
 if(f)return ((+f[1]||0)+f[2]/f[3])*25.4;const n=parseFloat(t);return /in|"/.test(t)?n*25.4:n}
function tell(){const b=bands[+document.getElementById('what').value],out=document.getElementById('out');
 let x=number(document.getElementById('size').value);const many=+document.getElementById('many').value||1;
 document.getElementById('manybox').hidden=!b.areas;
 if(!(x>0)){out.textContent='Type what is in the hand.';out.dataset.v='';return}
 if(b.areas){const d=b.areas.filter(r=>r[0]<=x+1e-9).pop();if(!d){out.textContent='Too small to be looked up.';out.dataset.v='';return}x=d[1]*many}
 const c=at(b.points,x,'chance'),v=at(b.points,x,'best');
 if(c===null){out.textContent='Outside what was tried: '+b.points[0].value.toFixed(1)+' to '+b.points[b.points.length-1].value.toFixed(1)+' '+b.unit+'. Leave it.';out.dataset.v='leave';return}
 const p=n=>Math.round(n*100)+' of 100 vehicles hold every limit';
 if(c>=keep){out.textContent='Keep: '+p(c)+'.';out.dataset.v='keep'}
 else if(v>=keep){out.textContent='Keep, with a valve to the rear: '+p(v)+'; '+Math.round(c*100)+' without.';out.dataset.v='valve'}
 else{const w=b.points.reduce((m,q)=>Math.abs(q.value-x)<Math.abs(m.value-x)?q:m);out.textContent='Leave: '+p(Math.max(c,v))+(w.worst?'; '+w.worst:'')+'.';out.dataset.v='leave'}}
document.querySelectorAll('input,select').forEach(e=>e.addEventListener('input',tell));tell();
"""


def _plot(band: YardBand) -> str:
    points = band["points"]
    low, high = points[0]["value"], points[-1]["value"]

    def x(value: float) -> float:
        return (value - low) / (high - low or 1.0) * WIDE

    def y(chance: float) -> float:
        return HIGH - chance * HIGH

    def path(key: str) -> str:
        rows = [(p["value"], p["chance"] if key == "chance" else max(p["chance"], p["valve_chance"] or 0.0)) for p in points]
        return "M" + "L".join(f"{x(v):.1f},{y(c):.1f}" for v, c in rows)

    keep = band["keep"]
    shade = (
        ""
        if keep is None
        else f'<rect class="k" x="{x(keep[0]):.1f}" y="0" width="{x(keep[1]) - x(keep[0]):.1f}" height="{HIGH}"/>'
    )
    said = (
        "no value keeps every limit in 90 of 100 vehicles"
        if keep is None
        else f"keep {keep[0]:.4g} to {keep[1]:.4g} {band['unit']}"
    )
    if band["with_valve"] is not None and band["with_valve"] != keep:
        said += f"; with a valve {band['with_valve'][0]:.4g} to {band['with_valve'][1]:.4g}"
    return (
        f"<h2>{escape(band['label'])}</h2><p><small>{escape(said)}; now {band['now']:.4g}</small></p>"
        f'<svg width="{WIDE}" height="{HIGH + 16}" role="img" aria-label="{escape(said)}">{shade}'
        f'<line class="l" x1="0" x2="{WIDE}" y1="{y(0.9):.1f}" y2="{y(0.9):.1f}"/><path class="v" d="{path("valve")}"/><path class="c" d="{path("chance")}"/>'
        f'<line class="n" x1="{x(band["now"]):.1f}" x2="{x(band["now"]):.1f}" y1="0" y2="{HIGH}"/>'
        f'<text x="0" y="{HIGH + 13}">{low:.4g}</text><text x="{WIDE}" y="{HIGH + 13}" text-anchor="end">{high:.4g} {escape(band["unit"])}</text></svg>'
    )  # fmt: skip


def _ruler() -> str:
    """A ruler along the edge, and a bar that must measure 50.0 mm when it is printed at full size."""
    marks = "".join(
        f'<line class="l" x1="{n}" x2="{n}" y1="0" y2="{4 if n % 10 == 0 else 3 if n % 5 == 0 else 2}" style="stroke:#1f1e1b;stroke-width:.2"/>'
        for n in range(91)
    )
    figures = "".join(f'<text x="{n}" y="7.5" style="font-size:3px" text-anchor="middle">{n}</text>' for n in range(0, 91, 10))
    bar = '<path d="M20,10h50M20,9v2M70,9v2" style="fill:none;stroke:#1f1e1b;stroke-width:.3"/><text x="45" y="13.6" style="font-size:3px" text-anchor="middle">50.0 mm: measure it</text>'
    return f'<svg class="ruler" width="90mm" height="15mm" viewBox="0 0 90 15">{marks}{figures}{bar}</svg>'


def card_html(job: str, view: YardView) -> str:
    """The yard card of a setup as one HTML file.

    `job` [name]; `view` [record].
    """
    data = [
        {
            "unit": b["unit"],
            "points": [{"value": p["value"], "chance": p["chance"], "best": max(p["chance"], p["valve_chance"] or 0.0), "worst": p["worst"]} for p in b["points"]],
            "areas": [[d / 2, math.pi / 4 * (d / 2) ** 2 / 100] for d in range(40, 161)] if b["what"] == "side_area_cm2" else None,
        }
        for b in view["bands"]
    ]  # fmt: skip
    names = "".join(
        f'<option value="{n}">{escape(b["label"])}{"" if b["what"] != "side_area_cm2" else ", by diameter"}</option>'
        for n, b in enumerate(view["bands"])
    )
    limits = "".join(f"<tr><td>{escape(limit['words'])}</td><td>{escape(limit['text'])}</td></tr>" for limit in view["limits"])
    body = "".join(_plot(b) for b in view["bands"]) or "<p>Nothing can be said yet: entries are missing in Measure.</p>"
    form = (
        f'<form onsubmit="return false"><div><label for="what">what is in the hand</label><select id="what">{names}</select></div>'
        '<div><label for="size">its size, mm or in</label><input id="size" inputmode="text" placeholder="38"></div>'
        '<div id="manybox"><label for="many">pistons of one side</label><input id="many" inputmode="numeric" value="1"></div></form>'
        '<output id="out">Type what is in the hand.</output>'
        if view["bands"] else ""
    )  # fmt: skip
    script = f"<script>{_JS.replace('%KEEP%', str(view['keep_share']))}</script>" if view["bands"] else ""
    safe = json.dumps(data).replace("<", "\\u003c")
    return (
        f'<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1"><title>Yard card: {escape(job)}</title>'
        f"<style>{_CSS}</style></head><body><h1>Yard card</h1><p>{escape(job)}, {escape(view['setup'])}</p>{form}{body}"
        f"<h2>What must hold</h2><table>{limits}</table><p><small>Tried on {view['trials']} plausible vehicles; one part changed at a time, the others as planned. An estimate: "
        f"set any valve lower at first, and prove it on the road. Used calipers: new seals, in axle pairs.</small></p>{_ruler()}"
        f'<script type="application/json" id="bands">{safe}</script>{script}</body></html>'
    )  # fmt: skip
