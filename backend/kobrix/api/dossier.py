"""The dossier of a plan: gathered from every stage, one page for an inspector."""

from datetime import date

from kobrix.api.figures import figures_of
from kobrix.exports.dossier import Dossier, Section
from kobrix.fileformat.job import Job
from kobrix.stages.bed.service import bed_of
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.bleed.service import bleed_of
from kobrix.stages.bleed.shapes import BleedView, WatchView
from kobrix.stages.build.service import build_of
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.service import fit_of
from kobrix.stages.prove.service import prove_of
from kobrix.stages.prove.shapes import ProveView
from kobrix.stages.size.service import verdicts_view

CHANGES, JOINTS, FINDINGS = 8, 26, 6  # lines of the page; what is cut stands in the record
FIGURES = ("push", "travel", "share")  # of those that go on paper: one page
_NOT = "Not tested."
_VERDICT = {
    "drive_slowly": "Drive slowly: as planned, within the doubt.", "look_again": "Look again: {why}.", "do_not_drive": "DO NOT DRIVE: {why}.",
}  # fmt: skip


def _changed(job: Job, name: str, build: BuildView) -> Section:
    parts = [r["part"] for r in fit_of(job, 0, name)["parts"]["rows"] if r["shop"] == "others" and r["count"] > 0]
    lines = [f"{', '.join(build['changes']).capitalize()}." if build["changes"] else "Nothing against the vehicle as found."]
    shown = parts[:CHANGES]
    if shown:
        lines.append(f"Parts: {'; '.join(shown)}{'; and more in the record' if len(parts) > CHANGES else ''}.")
    if build["also"]:
        lines.append(f"Also: {', '.join(a['words'] for a in build['also'])}.")
    return Section("What was changed", tuple(lines))


def _figures(job: Job, name: str) -> Section:
    shown = tuple((f.words, f.found, f.plan) for f in figures_of(job, name) if f.kind in FIGURES)
    if not shown:
        return Section("Figures", ("Not known: entries are missing.",))
    return Section("Figures, predicted", (), ("", "as found", name), shown, (60, 45, 45))


def _findings(job: Job, name: str) -> tuple[Section, list[str]]:
    told = next((v for v in verdicts_view(job, 0)["setups"] if v["key"] == name), None)
    if told is None or not told["findings"]:
        return Section("What the model says", ("Not known: entries are missing.",)), []
    bad = [f for f in told["findings"] if f["level"] in ("danger", "caution")]
    rows = tuple(
        (f["level"], f["sentence"], "" if f["chance"] is None else f"{100 * f['chance']:.0f} of 100") for f in bad[:FINDINGS]
    )
    alarms = [f"DANGER: {f['sentence']}" for f in bad if f["level"] == "danger"]
    if not rows:
        return Section("What the model says", ("Nothing dangerous and no caution in 400 plausible vehicles.",)), alarms
    return Section("What the model says", (), ("", "", "in plausible vehicles"), rows, (20, 125, 35)), alarms


def _joints(build: BuildView) -> tuple[Section, list[str]]:
    """The steps that kill: what was signed, by whom, with what torque from where; what is open is a danger."""
    steps = [s for d in build["days"] for s in d["steps"] if s["critical"]]
    if not steps:
        return Section("Critical joints", ("None in this plan.",)), []
    done = [s for s in steps if s["done"] is not None]
    rows = []
    for step in done[:JOINTS]:
        own = step["done"]
        assert own is not None
        torque = (
            f"{own['torque']} ({own['source']})" if own["torque"] else "tightened, value unknown" if step["asks_torque"] else ""
        )
        rows.append((f"{step['where']}: {step['short']}", torque, own["by"] or "no name", own["at"][:10]))
    left = [s for s in steps if s["done"] is None]
    lines = []
    if left:
        lines.append(
            "NOT SIGNED: "
            + "; ".join(f"{s['where']} {s['short']}" for s in left[:JOINTS])
            + ("; and more." if len(left) > JOINTS else ".")
        )
    if len(done) > JOINTS:
        lines.append(f"{len(done) - JOINTS} more are signed: they stand in the record.")
    alarms = [f"{len(left)} of {len(steps)} critical joints are not signed."] if left else []
    return Section(
        "Critical joints: torque as its maker states it",
        tuple(lines),
        ("joint", "torque and its source", "signed by", "on") if rows else (),
        tuple(rows),
        (60, 70, 25, 22),
    ), alarms


def _watched(watch: WatchView) -> str:
    """How often the opened joints were looked at, and what was wet."""
    n = len(watch["joints"])
    if not n:
        return "Opened joints: none noted."
    wet = f" WET: {'; '.join(watch['wet'])}." if watch["wet"] else ""
    return (
        f"Opened joints: {watch['dry_hold']} of {n} dry after the hold, {watch['dry_drive']} of {n} after the first drive.{wet}"
    )


def _stand(bleed: BleedView) -> tuple[Section, list[str]]:
    stand, holds = bleed["stand"], bleed["holds"]["sentence"]
    lines = [_NOT] if stand["verdict"] is None else [_VERDICT[stand["verdict"]].format(why="; ".join(stand["reasons"]))]
    if stand["travel_sentence"]:
        lines.append(stand["travel_sentence"])
    fitted = [
        f"{f['words'].capitalize()}: {f['value']:.2f}{' ' if f['unit'] else ''}{f['unit']} ({f['low']:.2f} to {f['high']:.2f})"
        + (f", planned {f['plan']:.2f}." if f["plan"] is not None else ".")
        for f in stand["fitted"]
    ]
    lines += [" ".join(fitted)] if fitted else []
    lines += [f"Pedal held: {holds or _NOT} {_watched(bleed['watch'])}"]
    signed = stand["signed"]
    lines.append(
        f"Signed for a first drive at walking pace by {signed['by'] or 'no name'} on {signed['at'][:10]}."
        if signed is not None
        else "Not signed for the first drive."
    )
    alarms = ["The stand test says: do not drive."] if stand["verdict"] == "do_not_drive" else []
    alarms += ["A joint is wet."] if bleed["watch"]["wet"] else []
    return Section("Stand test, before the first metre", tuple(lines)), alarms


def _bedded(bed: BedView) -> str:
    whole = len(bed["slow_downs"])
    recipe = f" after {bed['source']}" if bed["source"] else ""
    return f"Pads: {bed['driven']} of {whole} slow-downs driven{recipe}." if whole else "Pads: no recipe for bedding was noted."


def _stops(stored: StoredJob, name: str, view: ProveView) -> Section:
    pads = _bedded(bed_of(stored, name))
    rows = tuple(
        (s["name"], str(s["n"]), f"{s['mean_m']:.1f} m" if s["mean_m"] is not None else "", f"{s['low_m']:.1f} to {s['high_m']:.1f}" if s["low_m"] is not None and s["high_m"] is not None else "")
        for s in view["sets"] if s["n"] and not s["row_gap"]
    )  # fmt: skip
    if not rows:
        return Section("Stops", (f"{pads} Stops: {_NOT.lower()}",))
    return Section(
        f"Stops from {view['nominal']}", (f"{pads} {view['headline']}",), ("set", "stops", "mean", "95 %"), rows, (70, 25, 35, 45)
    )


def dossier_of(stored: StoredJob, name: str, today: date, link: str = "", proven: ProveView | None = None) -> Dossier:
    """The dossier of the setup by `name`, with the `link` to its job; `proven`: the job's stops, where they were looked at. Raises NotFound."""
    job = stored.job
    build, bleed = build_of(stored, name), bleed_of(stored, name)
    findings, dangers = _findings(job, name)
    joints, unsigned = _joints(build)
    stand, stopped = _stand(bleed)
    asks = (
        "Aircraft: an entry by certified persons is needed."
        if build["certified"]
        else "Ask the inspector, and the part's maker, before it is driven on the road."
    )
    sign = Section(
        "Signatures", ("Builder: ______________________   Looked at again by: ______________________   Day: ____________",)
    )
    return Dossier(
        f"Brake change: {job.name}", f"{name}, as of {today.isoformat()}. Predicted figures are estimates over plausible vehicles, to be proven by test.",
        (*dangers, *unsigned, *stopped),
        (_changed(job, name, build), _figures(job, name), findings, joints, stand, _stops(stored, name, proven or prove_of(stored)), sign),
        f"{asks} Makers' instructions, road law and inspection come first. Torques and limits are the makers', as typed. The whole record is in the job's file.",
        link,
    )  # fmt: skip
