"""The first drive: slow, in a safe place, harder step by step; what ends it, and what was done by whom."""

from kobrix.fileformat.job import Job
from kobrix.stages.prove.shapes import DriveStep, FirstDrive
from kobrix.store.records import Record

GATE = "stand_test"  # the step that is signed on stands
Step = tuple[str, str, str]  # id, what to do, what ends it
# Common practice; a maker's own procedure, local law and an inspector come first.
_STANDING: list[Step] = [
    ("hold", "Standing, engine running if it has a booster: push hard for half a minute.", "The pedal sinks."),
]
_AFTER: list[Step] = [
    (
        "look",
        "Stop and look: every opened joint dry, the reservoir as full as before, wheel nuts to their maker's torque.",
        "A joint is wet.",
    ),
    ("heat", "Hold a hand near each wheel, not on it: left as warm as right, none hot that was hardly used.", "One drags."),
]
_ROAD: list[Step] = [
    (
        "walk",
        "Walking pace on level ground with nobody about: five gentle stops, the hand brake ready.",
        "The pedal is longer, or it rubs.",
    ),
    ("slow", "30 km/h: five stops, the wheel held lightly.", "It pulls to a side."),
    *_AFTER,
    ("firm", "50 km/h on an empty dry road: harder each time, till an axle is near locking.", "The rear is first."),
    ("fade", "Five firm stops close together, then drive on to cool.", "The push grows, or the pedal goes long."),
    ("again", "Next day, cold: the pedal as high as it was, no drop below any joint.", "It is lower, or there is fluid."),
]
_RIDE: list[Step] = [
    (
        "walk",
        "Walking pace, upright and straight: the hand alone five times, the foot alone five times.",
        "The lever comes to the bar.",
    ),
    ("slow", "30 km/h, upright: hand alone, foot alone, then both.", "A wheel drags or rubs."),
    *_AFTER,
    (
        "firm",
        "50 km/h, straight, dry and empty: harder each time, the hand eased as the rear goes light.",
        "The rear slides or lifts.",
    ),
    ("again", "Next day, cold: lever and pedal as they were.", "Either is longer, or there is fluid."),
]
_TAXI: list[Step] = [
    (
        "walk",
        "Engine idling, chocks ready, nobody about: roll at walking pace, both brakes gently, five times.",
        "A pedal goes long.",
    ),
    ("turn", "Each side alone: it turns as willingly left as right.", "One side drags or does nothing."),
    *_AFTER,
    ("firm", "Taxi at a brisk walk and stop firmly, tail or nose held down by the stick.", "The tail comes up, or it swings."),
    (
        "again",
        "Next day, cold: pedals as they were; then a certified person signs it off.",
        "Either is longer, or there is fluid.",
    ),
]
_BY_KIND = {"motorcycle": _RIDE, "aircraft": _TAXI}


def first_drive_of(job: Job, setup: str, records: tuple[Record, ...]) -> FirstDrive:
    """The first drive of a `setup`, each step with the record that says it was done."""
    done = {r.body["step"]: r for r in records if r.kind == "driven" and r.struck is None and r.body.get("setup") == setup}
    signed = any(
        r.kind == "signed" and r.struck is None and r.body.get("setup") == setup and r.body["step"] == GATE for r in records
    )
    steps: list[DriveStep] = []
    for name, words, stop in [*_STANDING, *_BY_KIND.get(job.vehicle.kind or "car", _ROAD)]:
        own = done.get(name)
        steps.append(
            {
                "id": name, "words": words, "stop": stop, "key": None if own is None else own.key, "at": "" if own is None else own.made_at,
                "by": "" if own is None else own.body.get("by", ""),
            }
        )  # fmt: skip
    gate = "" if signed else "The stand test of this setup is not signed yet: in Bleed, on stands, before the first metre."
    return {"setup": setup, "gate": gate, "steps": steps, "done": sum(s["key"] is not None for s in steps)}
