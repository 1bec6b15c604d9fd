"""The questions of Fit that need no setup: read from the open format, answered by the core."""

import math
from datetime import date

from kobrix.core.fit.clearance import (
    AXIAL,
    BRIDGE,
    LIMITS,
    RADIAL,
    SIDES,
    Box,
    Clearance,
    ClearanceAnswer,
    Point,
    Stud,
    Weights,
    barrel_over,
    rim_profile,
    wheel_clearance,
)  # fmt: skip
from kobrix.core.fit.donors import Donor, DonorsAnswer, dimensions, donor_rank
from kobrix.core.fit.hoses import HoseAnswer, Reach, hose_reach
from kobrix.core.fit.joints import End, HandAnswer, JointAnswer, Measured, family_of, identify, joint_match
from kobrix.core.fit.missing import Fluid, Item, Joint, MissingAnswer, needed, still_missing
from kobrix.core.fit.plates import Hole, Outline, Pattern, Plate, PlateAnswer, circle, plate, rectangle
from kobrix.core.fit.threads import Thread, thread_of
from kobrix.core.fit.tubes import Bend, LinesAnswer, Stock, Tube, Way, line_length, way_through
from kobrix.evaluate.ask.steps import read_changes, read_sides
from kobrix.fileformat.asked import Asked
from kobrix.fileformat.tables import table

BARREL_DEPTH = 20.5  # mm from the rim's diameter to its barrel inside: our estimate, measure


def _profile(wheel: Asked) -> tuple[Point, ...]:
    if wheel.given("profile") or not wheel.given("rim_diameter_mm"):
        return tuple((p.number("x_mm", "any"), p.number("r_mm", "zero")) for p in wheel.parts("profile", 2))
    rim = wheel.number("rim_diameter_mm")
    barrel = wheel.default("barrel_inner_radius_mm", rim / 2 - BARREL_DEPTH)
    if barrel <= 0:
        raise wheel.bad("rim_diameter_mm", f"it leaves no barrel: {rim:g} mm was given, at least {2 * BARREL_DEPTH:g} is needed.")
    width, offset, back = wheel.number("width_mm"), wheel.number("offset_mm", "any"), wheel.number("spoke_back_mm", "any")
    profile = rim_profile(back, barrel, offset, width)
    if profile[-1][0] <= profile[0][0] + 1e-9:
        raise wheel.bad("width_mm", "the barrel ends outboard of the spoke's back.")
    return profile


def _outline(caliper: Asked) -> tuple[Point, ...] | Box:
    if caliper.given("points") or not caliper.given("box"):
        return tuple((p.number("x_mm", "any"), p.number("r_mm", "zero")) for p in caliper.parts("points", 3))
    box = caliper.part("box")
    read = Box(box.number("x_from_mm", "any"), box.number("x_to_mm", "any"), box.number("r_from_mm", "zero"),
               box.number("r_to_mm"), box.default("half_length_mm", 0.0))  # fmt: skip
    for low, high, name in ((read.x_from, read.x_to, "x_to_mm"), (read.r_from, read.r_to, "r_to_mm")):
        if high <= low + 1e-9:
            raise box.bad(name, "it is not above where it is from.")
    return read


def clearance(asked: Asked) -> ClearanceAnswer:
    """wheel_clearance: gaps between caliper, wheel, weights and rotor."""
    return wheel_clearance(clearance_asked(asked))


def clearance_asked(asked: Asked) -> Clearance:
    """The section that wheel_clearance asks about."""
    stack, caliper, rotor = asked.part_or_empty("stack"), asked.part("caliper"), asked.part_or_empty("rotor")
    limits = asked.part_or_empty("limits").known(LIMITS)
    widths = asked.part_or_empty("plus_minus").known(dict.fromkeys((*RADIAL, *AXIAL, *BRIDGE, *SIDES)))
    weights, stud = None, None
    profile = _profile(asked.part("wheel"))
    if asked.given("weights"):
        part = asked.part("weights")
        weights = Weights(part.number("x_from_mm", "any"), part.number("x_to_mm", "any"), part.default("thickness_mm", 4.0))
        if weights.x_to <= weights.x_from + 1e-9:
            raise part.bad("x_to_mm", "it is not above where it is from.")
        if barrel_over(weights, list(profile), 0.0) is None:
            raise part.bad("x_from_mm", "the wheel has no barrel there.")
    if asked.given("stud"):
        part = asked.part("stud")
        stud = Stud(part.number("length_mm"), part.number("diameter_mm"), part.number("pitch_mm"), part.number("seat_mm"),
                    part.default("nut_thread_mm", math.inf))  # fmt: skip
    pad, height = caliper.maybe("pad_outer_radius_mm"), caliper.maybe("pad_height_mm")
    bridge, centre, width = (caliper.maybe("bridge_radius_mm"), caliper.maybe("slot_centre_mm", "any"),
                             caliper.maybe("slot_width_mm"))  # fmt: skip
    wanted = bridge is not None or (pad is not None and height is not None)
    return Clearance(
        profile, _outline(caliper), stack.default("hat_thickness_mm", 0.0), stack.default("spacer_mm", 0.0),
        asked.default("shims_mm", 0.0, "any"), asked.default("radial_move_mm", 0.0, "any"), weights,
        bridge, centre, width, pad, height,
        rotor.number("diameter_mm") if wanted else rotor.maybe("diameter_mm"),
        rotor.number("thickness_mm") if centre is not None and width is not None else rotor.maybe("thickness_mm"),
        rotor.number("hat_offset_mm", "any") if centre is not None else rotor.maybe("hat_offset_mm", "any"),
        stud, {name: limits.default(name, value, "zero") for name, value in LIMITS.items()},
        {name: widths.number(name, "zero") for name in widths.value if widths.given(name)},
    )  # fmt: skip


def thread_at(asked: Asked, key: str) -> Thread:
    """The thread written at `key`; BadPlace where none is known by that name."""
    text = asked.text(key)
    found = thread_of(text, table("fittings")["npt_outer_mm"])
    if found is None:
        raise asked.bad(key, f"{text!r} was given; allowed are threads such as 3/8-24, M10x1 or 1/8-27 NPT.")
    return found


def _families() -> list[str]:
    return [row["family"] for row in table("fittings")["families"]]


def _end(asked: Asked, key: str) -> End | None:
    if not asked.given(key):
        return None
    end = asked.part(key)
    family = end.word("family", _families()) if end.given("family") else None
    rows = table("fittings")["families"] if family is None else [family_of(table("fittings"), family)]
    roles = list(dict.fromkeys(role for row in rows for role in row["roles"]))
    role = end.word("role", roles) if end.given("role") else None
    thread = thread_at(end, "thread") if end.given("thread") else None
    return End(
        family, role, thread, end.text("thread", ""), end.maybe("tube_mm"), end.text("material") if end.given("material") else None,
        end.count("washers", 0), end.flag("washers_used"), end.flag("sealant"), end.text("on") if end.given("on") else None,
    )  # fmt: skip


def joint(asked: Asked) -> JointAnswer | HandAnswer:
    """joint_match: whether two ends seal, or what fitting is in the hand."""
    return in_hand(asked.part("measured")) if asked.given("measured") else ends(asked)


def in_hand(hand: Asked) -> HandAnswer:
    """joint_match of a fitting that was measured."""
    fittings = table("fittings")
    pitch = hand.maybe("pitch_mm")
    if pitch is None and hand.given("tpi"):
        pitch = 25.4 / hand.number("tpi")
    seen = hand.word("seen", dict.fromkeys(fittings["seen"].values())) if hand.given("seen") else None
    tapered = hand.flag("tapered") if hand.given("tapered") else None
    return identify(
        fittings, Measured(hand.word("gender", ("male", "female")), hand.number("over_crest_mm"), pitch, seen, tapered)
    )


def ends(asked: Asked) -> JointAnswer:
    """joint_match of two ends, `a` and `b`."""
    a, b = _end(asked, "a"), _end(asked, "b")
    if a is None and b is None:
        raise asked.bad("a", "one end at least is needed.")
    return joint_match(table("fittings"), a, b)


def _way(tube: Asked) -> Way:
    if tube.given("points_mm") and not tube.given("parts"):
        points = [(x, y, z) for x, y, z in tube.points("points_mm", 3, 2)]
        return way_through(points, tube.number("radius_mm"), tube.at("points_mm"))
    way: Way = []
    for part in tube.parts("parts"):
        if part.given("bend_deg"):
            way.append(Bend(part.number("bend_deg"), part.number("radius_mm")))
        else:
            way.append(part.number("straight_mm", "zero"))
    return way


def lines(asked: Asked) -> LinesAnswer:
    """line_length: what to cut for each hard line, and how it lies in the stock."""
    tubes, rows, names = [], {r["family"]: r for r in table("fittings")["families"]}, []
    for k, tube in enumerate(asked.parts("tubes"), 1):
        ends = tube.texts("ends", 0) or ["none", "none"]
        if len(ends) != 2:
            raise tube.bad("ends", f"{len(ends)} were given; a tube has two.")
        for n, end in enumerate(ends):
            if end != "none" and end not in rows:
                raise tube.bad(f"ends.{n}", f"{end!r} was given; allowed are none, {', '.join(rows)}.")
        allowance = sum(rows[end]["flare_allowance_mm"] for end in ends if end != "none")
        names.append(tube.text("name", f"line {k}"))
        outer, material = tube.number("outer_mm"), tube.text("material", "steel")
        tubes.append(Tube(names[-1], outer, material, (ends[0], ends[1]), allowance, _way(tube)))
    stock = [
        Stock(
            s.number("length_mm"),
            s.number("outer_mm"),
            s.text("material", "steel"),
            s.count("count") if s.given("count") else None,
        )
        for s in asked.parts("stock", 0)
    ]
    return line_length(tubes, stock, asked.default("saw_mm", 1.0, "zero"))


def hose(asked: Asked) -> HoseAnswer:
    """hose_reach: the length of a hose from three strings."""
    reach = Reach(
        asked.number("droop_mm"), asked.number("bump_mm"), asked.number("lock_mm"), sum(asked.pair("ends_mm", (0.0, 0.0), "zero")),
        asked.default("least_bend_radius_mm", 40.0), asked.default("shortens_share", 0.04, "zero"),
        asked.default("least_slack_mm", 10.0, "zero"), asked.default("greatest_share", 0.15, "zero"),
    )  # fmt: skip
    length = asked.maybe("hose_mm")
    if length is not None and length <= reach.ends:
        raise asked.bad("hose_mm", f"{length:g} mm was given; its rigid ends alone are {reach.ends:g} mm.")
    return hose_reach(reach, length, asked.numbers("lengths_mm") if asked.given("lengths_mm") else None)


def _pattern(part: Asked) -> Pattern:
    kind = part.word("kind", ("circle", "rectangle", "pair", "points"))
    if kind == "circle":
        points = circle(part.count("holes", least=1), part.number("bolt_circle_mm"))
    elif kind == "rectangle":
        points = rectangle(part.number("width_mm"), part.number("height_mm"))
    elif kind == "pair":
        half = part.number("spacing_mm") / 2
        points = ((half, 0.0), (-half, 0.0))
    else:
        points = tuple((x, y) for x, y in part.points("points_mm", 2, 1))
    turn, centre = part.default("turn_deg", 0.0, "any"), part.pair("centre_mm", (0.0, 0.0))
    return Pattern(points, part.number("hole_mm"), turn, centre, part.flag("tapped"))


def _plate_outline(asked: Asked) -> Outline | None:
    if not asked.given("outline") or asked.value["outline"] == "auto":
        return None
    part = asked.part("outline")
    kind = part.word("kind", ("circle", "rectangle", "auto"))
    if kind == "auto":
        return None
    cx, cy = part.pair("centre_mm", (0.0, 0.0))
    if kind == "circle":
        radius = part.number("diameter_mm") / 2
        return Outline((cx - radius, cy - radius, cx + radius, cy + radius), radius)
    w, h, corner = part.number("width_mm") / 2, part.number("height_mm") / 2, part.default("corner_mm", 0.0)
    if corner > min(w, h) + 1e-9:
        raise part.bad("corner_mm", "it is more than half a side.")
    return Outline((cx - w, cy - h, cx + w, cy + h), corner)


def adapter(asked: Asked) -> PlateAnswer:
    """plate: an adapter plate's holes, edges and webs."""
    shift = asked.pair("shift_mm", (0.0, 0.0))
    new = _pattern(asked.part("new")).holes("new", shift) if asked.given("new") else []
    bore = None
    if asked.given("bore"):
        part = asked.part("bore")
        x, y = part.pair("centre_mm", (0.0, 0.0))
        moved = part.word("at", ("old", "new"), "old") == "new"
        bore = Hole("bore", x + shift[0] * moved, y + shift[1] * moved, part.number("diameter_mm"))
    return plate(
        Plate(_pattern(asked.part("old")).holes("old"), new, bore, _plate_outline(asked), asked.default("edge_factor", 1.5),
              asked.default("web_factor", 1.0), asked.maybe("thickness_mm"), asked.word("material", ("steel", "aluminium"), "steel"))
    )  # fmt: skip


def donors(asked: Asked) -> DonorsAnswer:
    """donor_rank: parts by how little must be made to fit them."""
    rules = table("donor-rules")
    part = asked.word("part", ("rotor", "caliper"))
    known = dimensions(rules, part)

    def dimension(group: Asked, name: str) -> float | str:
        if "other" not in known[name]:
            return group.number(name, "any" if name in ("hat_offset_mm", "lateral_mm") else "above")
        return float(group.count(name, least=1)) if name == "holes" else _worded(group.text(name))

    extra = ["greatest_diameter_mm"] if part == "rotor" else []
    needs = asked.part("needs").known([*known, *extra])
    tolerance = asked.part_or_empty("plus_minus").known(name for name, rule in known.items() if "tolerance" in rule)
    wanted = {name: dimension(needs, name) for name in known if needs.given(name)}
    return donor_rank(
        rules, part, wanted, {n: tolerance.number(n, "zero") for n in tolerance.value if tolerance.given(n)},
        [Donor(row.text("name", f"part {k}"), {n: dimension(row, n) for n in wanted if row.given(n)}, row.maybe("price", "zero"))
         for k, row in enumerate(asked.parts("parts"), 1)],
        needs.maybe("greatest_diameter_mm"),
    )  # fmt: skip


def _worded(text: str) -> str:
    """A thread in its one spelling; other words as they are."""
    thread = thread_of(text, table("fittings")["npt_outer_mm"])
    return thread.text if thread is not None else text.strip()


def _day(asked: Asked, key: str) -> date:
    try:
        return date.fromisoformat(asked.text(key))
    except ValueError:
        raise asked.bad(key, f"{asked.value[key]!r} was given; allowed is a day such as 2026-05-07.") from None


def missing(asked: Asked) -> MissingAnswer:
    """still_missing: what the joints, the changes and the fluid need, less the shelf."""
    steps, joints = table("build-steps"), []
    for row in asked.parts("joints", 0):
        joints.append(Joint(row.word("family", _families()), thread_at(row, "thread").text, row.count("count", 1),
                            row.flag("opened", True), row.flag("open")))  # fmt: skip
    parts: list[Item] = [
        (
            row.text("part"),
            row.default("count", 1.0, "zero"),
            row.word("shop", ("fittings", "fluid", "fasteners", "made", "others"), "made"),
        )
        for row in asked.parts("parts", 0)
    ]
    fluid = None
    if asked.given("fluid"):
        part = asked.part("fluid")
        fluid = Fluid(part.number("system_cm3", "zero"), part.default("reservoir_cm3", 0.0), part.flag("flush", True),
                      part.text("grade", "DOT 4"))  # fmt: skip
    shelf: dict[str, float] = {}
    for row in asked.parts("shelf", 0):
        shelf[row.text("part")] = shelf.get(row.text("part"), 0.0) + row.default("count", 1.0, "zero")
    changes = read_changes(asked, "changes", 0)
    need = needed(table("fittings"), steps["consumables"], steps["sets"], joints, changes, read_sides(asked), parts, fluid)
    days = (_day(asked, "planned") - _day(asked, "today")).days if asked.given("today") and asked.given("planned") else None
    return still_missing(need, shelf, days)
