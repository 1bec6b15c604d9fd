"""What a plan keeps of its fitting: joints of the lines, and the wheel cut through the brake at each axle; what the job keeps of parts."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator
from pydantic_core import PydanticCustomError

from kobrix.core.errors import BadEntry
from kobrix.core.fit.threads import thread_of
from kobrix.fileformat.base import Name, Sparse, q
from kobrix.fileformat.library import Donors
from kobrix.fileformat.quantities import Typed
from kobrix.fileformat.tables import table

Words = Annotated[str, Field(min_length=1, max_length=80)]
ShopKind = Literal["fittings", "fluid", "fasteners", "made", "others"]
JOINT_KEY = r"^[a-z0-9-]{1,40}$"  # of a place on the map, or own-1, own-2 ... for what a person added


def _refuse(field: str, given: str, allowed: str, why: str = "") -> PydanticCustomError:
    return PydanticCustomError("relation", "{sentence}", {"sentence": str(BadEntry(field, given, allowed, why)), "field": field})


class JointEnd(Sparse):
    """One end of a joint as it was read or measured: what it is by family and role, its thread, the tube it stands on."""

    family: Words | None = None
    role: Words | None = None
    thread: Words | None = None
    tube_mm: Annotated[Typed | None, q("tube_mm", 1, 30)] = None
    material: Words | None = None
    washers: Annotated[int | None, Field(ge=0, le=8)] = None
    washers_used: bool | None = None
    sealant: bool | None = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        rows = {row["family"]: row for row in table("fittings")["families"]}
        if self.family is not None and self.family not in rows:
            raise _refuse("family", repr(self.family), ", ".join(rows))
        if self.role is not None:
            roles = [*(rows[self.family]["roles"] if self.family else {r for row in rows.values() for r in row["roles"]})]
            if self.role not in roles:
                raise _refuse("role", repr(self.role), ", ".join(sorted(roles)))
        if self.thread is not None and thread_of(self.thread, table("fittings")["npt_outer_mm"]) is None:
            raise _refuse("thread", repr(self.thread), "a thread such as 3/8-24, M10x1 or 1/8-27 NPT", "read it off a gauge")
        return self


class Joint(Sparse):
    """What is joined at one place: `a` on the cylinder's side, `b` beyond; `open`: nothing is screwed in; `adapter`: one stands between."""

    name: Words | None = None
    a: JointEnd | None = None
    b: JointEnd | None = None
    count: Annotated[int | None, Field(ge=1, le=12)] = None
    open: bool | None = None
    adapter: bool | None = None
    opened: bool | None = None
    note: str | None = Field(None, max_length=400)


class WheelShape(Sparse):
    """The inner side of a wheel: its size by the rim, and what was measured of its spoke and barrel [mm]."""

    rim_diameter_mm: Annotated[Typed | None, q("rim_diameter_mm", 150, 900)] = None
    width_mm: Annotated[Typed | None, q("width_mm", 30, 600)] = None
    offset_mm: Annotated[Typed | None, q("offset_mm", -200, 200)] = None
    spoke_back_mm: Annotated[Typed | None, q("spoke_back_mm", -200, 200)] = None
    barrel_inner_radius_mm: Annotated[Typed | None, q("barrel_inner_radius_mm", 50, 450)] = None
    spacer_mm: Annotated[Typed | None, q("spacer_mm", 0, 100)] = None


class CaliperShape(Sparse):
    """The caliper's outline as a box, from the hub's flange and the axle, and what must clear rotor and pad [mm]."""

    x_from_mm: Annotated[Typed | None, q("x_from_mm", -300, 300)] = None
    x_to_mm: Annotated[Typed | None, q("x_to_mm", -300, 300)] = None
    r_from_mm: Annotated[Typed | None, q("r_from_mm", 0, 450)] = None
    r_to_mm: Annotated[Typed | None, q("r_to_mm", 10, 450)] = None
    half_length_mm: Annotated[Typed | None, q("half_length_mm", 0, 300)] = None
    bridge_radius_mm: Annotated[Typed | None, q("bridge_radius_mm", 10, 450)] = None
    slot_centre_mm: Annotated[Typed | None, q("slot_centre_mm", -300, 300)] = None
    slot_width_mm: Annotated[Typed | None, q("slot_width_mm", 2, 100)] = None
    pad_outer_radius_mm: Annotated[Typed | None, q("pad_outer_radius_mm", 10, 450)] = None
    shims_mm: Annotated[Typed | None, q("shims_mm", -50, 50)] = None
    radial_move_mm: Annotated[Typed | None, q("radial_move_mm", -50, 50)] = None

    @model_validator(mode="after")
    def _check(self) -> Self:
        for low, high in (("x_from_mm", "x_to_mm"), ("r_from_mm", "r_to_mm")):
            self.below(low, high, "the outline goes from the one to the other")
        return self


class RotorShape(Sparse):
    """Where the rotor's disc stands on the hub [mm]; its diameter and thickness are the setup's."""

    hat_thickness_mm: Annotated[Typed | None, q("hat_thickness_mm", 0, 40)] = None
    hat_offset_mm: Annotated[Typed | None, q("hat_offset_mm", -200, 200)] = None


class StudShape(Sparse):
    """A wheel stud from the hub's flange, and the wheel's metal under the nut [mm]."""

    length_mm: Annotated[Typed | None, q("length_mm", 5, 200)] = None
    diameter_mm: Annotated[Typed | None, q("diameter_mm", 4, 30)] = None
    pitch_mm: Annotated[Typed | None, q("pitch_mm", 0.5, 4)] = None
    seat_mm: Annotated[Typed | None, q("seat_mm", 0, 60)] = None
    nut_thread_mm: Annotated[Typed | None, q("nut_thread_mm", 4, 80)] = None


class Doubts(Sparse):
    """How far the measured sizes of the section may be off, each way [mm]."""

    radial_mm: Annotated[Typed | None, q("radial_mm", 0, 20)] = None
    axial_mm: Annotated[Typed | None, q("axial_mm", 0, 20)] = None


class WheelSection(Sparse):
    """The wheel of one axle, cut through the brake."""

    wheel: WheelShape | None = None
    caliper: CaliperShape | None = None
    rotor: RotorShape | None = None
    stud: StudShape | None = None
    doubts: Doubts | None = None


class HoseStrings(Sparse):
    """Three strings from joint to joint along a hose's way [mm], its rigid ends, the length that is meant, and how near it comes to what
    gets hot."""

    droop_mm: Annotated[Typed | None, q("droop_mm", 20, 3000)] = None
    bump_mm: Annotated[Typed | None, q("bump_mm", 20, 3000)] = None
    lock_mm: Annotated[Typed | None, q("lock_mm", 20, 3000)] = None
    ends_mm: Annotated[Typed | None, q("ends_mm", 0, 300)] = None
    hose_mm: Annotated[Typed | None, q("hose_mm", 20, 3000)] = None
    heat_mm: Annotated[Typed | None, q("heat_mm", 0, 2000)] = None


class HolePattern(Sparse):
    """A pattern of holes: on a circle, a rectangle's corners, or a pair; turned, its middle moved, drilled or tapped [mm]."""

    kind: Literal["circle", "rectangle", "pair"]
    holes: Annotated[int | None, Field(ge=1, le=40)] = None
    bolt_circle_mm: Annotated[Typed | None, q("bolt_circle_mm", 5, 1000)] = None
    width_mm: Annotated[Typed | None, q("width_mm", 5, 1000)] = None
    height_mm: Annotated[Typed | None, q("height_mm", 5, 1000)] = None
    spacing_mm: Annotated[Typed | None, q("spacing_mm", 5, 1000)] = None
    hole_mm: Annotated[Typed | None, q("hole_mm", 1, 100)] = None
    turn_deg: Annotated[Typed | None, q("turn_deg", -360, 360)] = None
    tapped: bool | None = None


class PlateShape(Sparse):
    """A plate or bracket cut to a template: the pattern it is bolted to, the one that is bolted to it, how far that is moved [mm]."""

    name: Name
    old: HolePattern | None = None
    new: HolePattern | None = None
    shift_x_mm: Annotated[Typed | None, q("shift_x_mm", -500, 500)] = None
    shift_y_mm: Annotated[Typed | None, q("shift_y_mm", -500, 500)] = None
    bore_mm: Annotated[Typed | None, q("bore_mm", 1, 400)] = None
    bore_at: Literal["old", "new"] | None = None
    thickness_mm: Annotated[Typed | None, q("thickness_mm", 1, 60)] = None
    material: Literal["steel", "aluminium"] | None = None


class ParkingShape(Sparse):
    """The parking brake of a plan: what is pulled, how far it gears down, and what presses at the wheels of one axle."""

    axle: Literal["front", "rear"] | None = None
    control: Literal["hand", "foot"] | None = None
    control_ratio: Annotated[float | None, Field(gt=0, le=60)] = None
    actuator: Literal["caliper", "shoes", "clamp"] | None = None
    actuator_ratio: Annotated[float | None, Field(gt=0, le=60)] = None
    clamp_n: Annotated[Typed | None, q("clamp_n", 1, 100000)] = None
    drum_diameter_mm: Annotated[Typed | None, q("drum_diameter_mm", 60, 600)] = None
    shoes: Literal["leading_trailing", "two_leading", "duo_servo"] | None = None
    friction: Annotated[Typed | None, q("friction", 0.05, 1.2)] = None
    effective_radius_mm: Annotated[Typed | None, q("effective_radius_mm", 20, 400)] = None
    grade: Annotated[Typed | None, q("grade", 0, 1)] = None


LineEnd = Literal["inverted_45_double", "flare_45", "an_37", "bubble"]
Metal = Literal["steel", "copper_nickel", "stainless"]


class TubeShape(Sparse):
    """A hard line to be cut: its ends' flares and its way, straights and bends in their order as `300, 90° r 20, 450`."""

    name: Name
    outer_mm: Annotated[Typed | None, q("outer_mm", 2, 20)] = None
    material: Metal | None = None
    start: LineEnd | None = None
    end: LineEnd | None = None
    way: Annotated[str | None, Field(max_length=600)] = None


class TubeStock(Sparse):
    """Lengths of tube to cut from; without a `count` there is no end of them."""

    length_mm: Annotated[Typed, q("length_mm", 50, 100_000)]
    outer_mm: Annotated[Typed | None, q("outer_mm", 2, 20)] = None
    material: Metal | None = None
    count: Annotated[int | None, Field(ge=1, le=1000)] = None


class Tubing(Sparse):
    """The hard lines of a plan and what they are cut from."""

    tubes: list[TubeShape] | None = Field(None, max_length=60)
    stock: list[TubeStock] | None = Field(None, max_length=20)


class Route(Sparse):
    """What a plan is as a way to get there: what kind, the tools to buy for it, the cuts that cannot be undone, the evenings it takes."""

    kind: Literal["kit", "donor_parts", "factory_upgrade", "rebuild", "fronts_rearward", "other"] | None = None
    tools: Annotated[str | None, Field(max_length=200)] = None
    tools_price: Annotated[float | None, Field(ge=0, le=1_000_000)] = None
    cuts: Annotated[str | None, Field(max_length=200)] = None
    evenings: Annotated[float | None, Field(ge=0, le=1000)] = None


class Fitting(Sparse):
    """What a plan keeps of its fitting: joints by the place on the line map, wheel sections and hose strings by axle."""

    joints: dict[Annotated[str, Field(pattern=JOINT_KEY)], Joint] | None = Field(None, max_length=200)
    sections: dict[Literal["front", "rear"], WheelSection] | None = None
    hoses: dict[Literal["front", "rear"], HoseStrings] | None = None
    plates: list[PlateShape] | None = Field(None, max_length=20)
    parking: ParkingShape | None = None
    donors: dict[Literal["front", "rear"], Donors] | None = None
    route: Route | None = None
    tubing: Tubing | None = None


class ListedPart(Sparse):
    """A line of the parts list: how many are here and how many are ordered; how many more are wanted than the plan asks for; what it
    costs apiece, where it comes from."""

    part: Name
    have: Annotated[float | None, Field(ge=0, le=10_000)] = None
    ordered: Annotated[float | None, Field(ge=0, le=10_000)] = None
    wanted: Annotated[float | None, Field(ge=0, le=10_000)] = None
    price: Annotated[float | None, Field(ge=0, le=1_000_000)] = None
    source: Annotated[str | None, Field(max_length=80)] = None
    shop: ShopKind | None = None
