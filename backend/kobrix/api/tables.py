"""Every table of a job in one workbook: what was entered, what it gives, what is found, parts, joints, lines, work and stops."""

from datetime import date

from kobrix.evaluate.entries.sheet import measure_sheet
from kobrix.evaluate.solve import ByContent, answer_of, at_stop, wanted_stop
from kobrix.exports.workbook import Sheet
from kobrix.fileformat.job import Job
from kobrix.stages.build.service import build_of
from kobrix.stages.common import StoredJob
from kobrix.stages.fit.donors import routes_of
from kobrix.stages.fit.service import fit_of
from kobrix.stages.prove.service import prove_of, stops_table
from kobrix.stages.prove.shapes import ProveView
from kobrix.stages.size.service import verdicts_view


def _entries(job: Job) -> Sheet:
    rows: list[tuple[object, ...]] = []
    for name in job.names:
        for section in measure_sheet(job, name)["sections"]:
            for entry in (e for group in section["groups"] for e in group["entries"]):
                doubt = entry["plus_minus"]
                rows.append(
                    (
                        name,
                        section["title"],
                        entry["label"],
                        entry["text"],
                        entry["state"],
                        None if doubt is None else doubt["text"],
                    )
                )
    return Sheet("Entries", ("setup", "part", "entry", "as typed", "standing", "doubt"), tuple(rows))


def _results(job: Job) -> Sheet:
    answers = {name: answer_of(ByContent(job.setup(name))) for name in job.names}
    wanted = wanted_stop(list(answers.values()))
    rows: list[tuple[object, ...]] = []
    for name, answer in answers.items():
        push, share = at_stop(answer, wanted)
        lock = None if answer.solved is None else float(answer.solved.main.lock_decel.min())
        rows.append((name, wanted, push, share, None if lock is None or lock == float("inf") else lock))
    return Sheet("Results", ("setup", "stop g", "push N", "pedal room used", "first lock g"), tuple(rows))


def _findings(job: Job) -> Sheet:
    rows = tuple(
        (v["key"], f["level"], f["sentence"], f["reason"], f["chance"], f["source"])
        for v in verdicts_view(job, 0)["setups"]
        for f in v["findings"]
    )
    return Sheet("Findings", ("setup", "level", "finding", "reason", "chance", "source"), rows)


def _fitting(job: Job) -> list[Sheet]:
    parts: list[tuple[object, ...]] = []
    joints: list[tuple[object, ...]] = []
    tubes: list[tuple[object, ...]] = []
    for name in job.names:
        view = fit_of(job, 0, name)
        parts += [
            (name, r["part"], r["count"], r["have"], r["ordered"], r["missing"], r["price"], r["cost"], r["source"], r["shop"])
            for r in view["parts"]["rows"]
        ]
        joints += [(name, j["number"], j["title"], j["count"], j["level"], j["sentence"]) for j in view["joints"]]
        tubes += [(name, t["name"], t["way"], t["cut_mm"], t["tag"]) for t in view["cutlist"]["tubes"]]
    routes = tuple(
        (
            r["setup"],
            r["kind"],
            r["whole_price"],
            r["tools"],
            r["cuts"],
            r["evenings"],
            r["joints"],
            r["push_n"],
            r["travel_share"],
            r["heat_c"],
            r["chance"],
        )
        for r in routes_of(job)["routes"]
    )
    return [
        Sheet("Parts", ("setup", "part", "count", "here", "ordered", "missing", "price", "cost", "source", "shop"), tuple(parts)),
        Sheet("Joints", ("setup", "number", "joint", "places", "level", "says"), tuple(joints)),
        Sheet("Hard lines", ("setup", "line", "way", "cut mm", "tag"), tuple(tubes)),
        Sheet(
            "Routes",
            (
                "setup",
                "kind",
                "price",
                "tools",
                "cuts",
                "evenings",
                "joints opened",
                "push N",
                "pedal room used",
                "hottest rotor C",
                "all limits hold",
            ),
            routes,
        ),
    ]


def _work(stored: StoredJob) -> Sheet:
    rows: list[tuple[object, ...]] = []
    for name in stored.job.names:
        for day in build_of(stored, name)["days"]:
            for step in day["steps"]:
                done = step["done"]
                rows.append((name, day["title"], step["where"], step["short"], "critical" if step["critical"] else "", *(
                    ("", "", "", "") if done is None else (done["at"], done["by"], done["torque"], done["source"]))))  # fmt: skip
    return Sheet("Work", ("setup", "day", "where", "step", "signed for", "done at", "by", "torque", "source"), tuple(rows))


def _stops(proven: ProveView) -> Sheet:
    head, rows = stops_table(proven)
    return Sheet("Stops", head, tuple(rows))


def _records(stored: StoredJob) -> Sheet:
    rows = tuple(
        (r.made_at, r.kind, r.key, "; ".join(f"{k}: {v}" for k, v in r.body.items() if k != "curve"), r.struck or "")
        for r in stored.records
    )
    return Sheet("Records", ("made at", "kind", "key", "says", "struck out"), rows)


def tables_of(stored: StoredJob, today: date, proven: ProveView | None = None) -> list[Sheet]:
    """The sheets of a stored job, as of `today`; `proven`: its stops, where they were looked at."""
    job = stored.job
    about = Sheet("Job", ("what", "is"), (("job", job.name), ("revision", stored.revision), ("as of", today.isoformat()), (
        "caution", "Estimates, to be proven by test. Makers' instructions, road law and inspection come first."),))  # fmt: skip
    stops = _stops(proven or prove_of(stored))
    return [about, _entries(job), _results(job), _findings(job), *_fitting(job), _work(stored), stops, _records(stored)]
