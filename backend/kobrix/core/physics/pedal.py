"""What the foot feels along a force line: the push for every rod force, and the travel of the pad.

With a straight rod the ratio is constant and everything is straight between the knots. With a linkage the ratio follows
the stroke, so the push at a place is known at once (the rod force over the ratio there) and a place for a push is found by
looking for it.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from kobrix.core.errors import Impossible
from kobrix.core.numerics.arrays import Floats, Mask, Number, at_step, lookup
from kobrix.core.numerics.crossing import first_over
from kobrix.core.physics import control as controls
from kobrix.core.physics import linkage
from kobrix.core.physics.chain import ForceLine, Place, foot_of, whole_stroke
from kobrix.core.physics.travel import Curve, Travel, reach

# Places looked at on each straight part of a linkage, and of many trials; the crossing is then found between two.
_LOOKS, _COARSE = 48, 8
FAR = 8.0  # steps past the last knot that are looked at with a linkage


@dataclass(frozen=True)
class Pedal:
    """The control of a `line` [record] with its `travel` [record], None when it is not known; `coarse` [yes or no]: many trials, whose
    linkages are looked at in fewer places."""

    line: ForceLine
    travel: Travel | None
    coarse: bool = False

    @property
    def linked(self) -> linkage.Linkage | None:
        """The linkage, if there is one."""
        return self.line.system.control.linkage

    @cached_property
    def knots(self) -> Floats:
        """Push [N] at the knots (..., K) of a straight rod; the first is no push."""
        control = self.line.system.control
        push = controls.pedal_force_for_rod(self.line.rod, control.ratio, control.efficiency, control.return_force)
        push = np.array(push, dtype=np.float64)
        push[..., 0] = 0.0
        return push

    @cached_property
    def pad_curve(self) -> Curve:
        """Pad travel [m] with a straight rod; the least there is with a linkage is not a Curve."""
        known = self._known()
        control, help_ = self.line.system.control, self.line.system.booster
        i = control.ratio
        flat = control.free_play + (help_.lost_travel * i if help_ is not None else 0.0)
        mount = np.asarray(controls.mount_travel(self.line.rod, control.mount_give, i))
        low = np.where(known.pressing, flat + mount[..., :-1], 0.0)
        high = np.where(known.pressing, flat + mount[..., 1:], 0.0)
        return known.piston.scaled(i).plus(low, high)

    def _known(self) -> Travel:
        if self.travel is None:
            raise Impossible("pedal travel", "the lines are not known")
        return self.travel

    def ratio_at(self, place: Place) -> Number:
        """Pedal ratio i [1] at a `place` [record] (..., S); NaN past a linkage's dead point."""
        control = self.line.system.control
        if self.linked is None:
            return control.ratio
        return linkage.ratio_at(self.linked, control.pivot_to_pad, self._known().piston.at(place))

    def push_at(self, place: Place) -> Floats:
        """Pedal force [N] at a `place` [record] (..., S)."""
        if self.linked is None:
            return lookup(self.knots, place.knot, place.fraction)
        control = self.line.system.control
        rod = lookup(self.line.rod, place.knot, place.fraction)
        push = controls.pedal_force_for_rod(rod, self.ratio_at(place), control.efficiency, control.return_force)
        first = place.knot == 0
        return np.asarray(np.where(first, place.fraction * push, push))

    def place_at(self, push: Number) -> Place:
        """The place [record] at a pedal force `push` [N] (..., S); at a leap, its foot; of several, the furthest."""
        return self.balance(push)[0]

    def balance(self, push: Number) -> tuple[Place, Mask]:
        """As `place_at`, and whether the control balances that push at all: not past a linkage's dead point, nor with it past the
        cylinder's stroke."""
        if self.linked is None:
            place = foot_of(self.knots, push)
            return place, np.ones(place.knot.shape, dtype=bool)
        place, known = self._passed(self.push_at, np.atleast_1d(np.asarray(push, dtype=np.float64)), last=True)
        stroke = whole_stroke(self.line.system)
        if stroke is not None:
            known = known & (self._known().piston.at(place) <= stroke * (1.0 + 1e-9))
        return place, np.asarray(known | (np.asarray(push) <= 0.0))

    def pad_at(self, place: Place) -> Floats:
        """Pad travel [m] at a `place` [record] (..., S)."""
        if self.linked is None:
            return self.pad_curve.at(place)
        arc, i = linkage.arc_and_ratio(self.linked, self.line.system.control.pivot_to_pad, self._known().piston.at(place))
        return np.asarray(arc + sum(self._beside_the_stroke(place, i).values()))

    def causes_at(self, place: Place, strokes: dict[tuple[str, str], Floats] | None = None) -> dict[tuple[str, str], Floats]:
        """Pad travel [m] by (where, cause) at a `place` [record] (..., S), with its `strokes` [m] where they are known."""
        strokes = self._known().strokes(place) if strokes is None else strokes
        if self.linked is None:
            share: Number = self.ratio_at(place)
            i = share
        else:
            whole = self._known().piston.at(place)
            arc, i = linkage.arc_and_ratio(self.linked, self.line.system.control.pivot_to_pad, whole)
            share = np.where(whole > 0.0, arc / np.where(whole > 0.0, whole, 1.0), 0.0)
        return {key: stroke * share for key, stroke in strokes.items()} | self._beside_the_stroke(place, i)

    def _beside_the_stroke(self, place: Place, ratio: Number) -> dict[tuple[str, str], Floats]:
        """Pad travel [m] by (where, cause) at a place that moves no piston, with the ratio [1] there."""
        control, help_ = self.line.system.control, self.line.system.booster
        pressing = at_step(self._known().pressing.astype(np.float64), place.knot) > 0.0
        rod = lookup(self.line.rod, place.knot, place.fraction)
        lost = {} if help_ is None else {"booster_lost": help_.lost_travel * ratio}
        found = {"free_play": control.free_play, **lost, "mount": controls.mount_travel(rod, control.mount_give, ratio)}
        return {("control", cause): np.where(pressing, far, 0.0) for cause, far in found.items()}

    def contact(self) -> tuple[Place, Floats]:
        """Place (..., 1) and pad travel [m] (...) at which the first brake is touched; 0 where nothing ever presses.

        Infinite where a linkage passes its dead point before.
        """
        known = self._known()
        knot = known.pressing.argmax(axis=-1)[..., None]
        place = Place(knot, np.zeros(knot.shape))
        ever, pad = known.pressing.any(axis=-1), self.pad_at(place)[..., 0]
        if self.linked is not None:
            pad = np.nan_to_num(pad, nan=np.inf)
        return place, np.where(ever, pad, 0.0)

    def reach_pad(self, wanted: Number) -> tuple[Place, Mask]:
        """First place (..., 1) at which the pad has travelled `wanted` [m], and whether it ever does."""
        if self.linked is None:
            return reach(self.pad_curve, wanted)
        return self._passed(self.pad_at, np.atleast_1d(np.asarray(wanted, dtype=np.float64)), last=False)

    def stiffness(self, place: Place) -> Floats:
        """Pedal stiffness dF/dtravel [N/m], loading, at a `place` [record] (..., S); 0 inside a leap."""
        if self.linked is None:
            rise = at_step(self.knots[..., 1:] - self.knots[..., :-1], place.knot)
            slope = self.pad_curve.slope(place)
        else:
            step = 1e-6
            ahead, behind = (Place(place.knot, place.fraction + d) for d in (step, -step))
            rise = self.push_at(ahead) - self.push_at(behind)
            slope = self.pad_at(ahead) - self.pad_at(behind)
        return np.asarray(np.where(slope > 0.0, rise / np.where(slope > 0.0, slope, 1.0), 0.0))

    def _passed(self, curve: Callable[[Place], Floats], wanted: Floats, last: bool) -> tuple[Place, Mask]:
        """First or last place at which a `curve` of places passes `wanted`, by looking, then closing in.

        Past a dead point there is nothing. Where it is never passed: the place of the most there is, and False; nothing wanted is
        the line's start.
        """
        steps, count = self.line.steps, _COARSE if self.coarse else _LOOKS
        ends = np.concatenate([np.arange(steps - 1) + 1.0, [steps - 1.0 + FAR]])
        starts = np.arange(steps, dtype=np.float64)
        looks = np.linspace(0.0, 1.0, count + 1)
        number = (starts[:, None] + (ends - starts)[:, None] * looks[1:]).reshape(-1)
        knot = np.minimum(np.repeat(np.arange(steps), count), steps - 1)
        values = np.nan_to_num(curve(Place(knot, number - knot)), nan=-np.inf)
        before = np.concatenate([np.zeros((*values.shape[:-1], 1)), values[..., :-1]], axis=-1)
        passes = (values[..., None, :] >= wanted[..., :, None]) & (before[..., None, :] < wanted[..., :, None])
        ok = passes.any(axis=-1)
        size = passes.shape[-1]
        hit = size - 1 - np.argmax(passes[..., ::-1], axis=-1) if last else passes.argmax(axis=-1)
        hit = np.where(ok, hit, np.argmax(values, axis=-1)[..., None])
        own = knot[hit]
        high = number[hit]
        low = np.where(hit % count == 0, own, number[np.maximum(hit - 1, 0)])
        low = np.where(ok & (wanted > 0.0), low, high)
        high = first_over(lambda place: curve(Place(own, place - own)), low, high, wanted)
        own, found = np.where(wanted > 0.0, own, 0), np.where(wanted > 0.0, high, 0.0)
        return Place(own, found - own), np.asarray(ok)


def bottoming(control: controls.Control, stroke: Number, booster_lost: Number) -> Number:
    """Pad travel [m] at which the piston is at its end: (stroke + lost)·i + free play, with a linkage the pad's arc.

    `control` [record]; `stroke` [m], of a twin what its bearing moves; `booster_lost` [m] at the rod. Any shape.
    Source: lever law, slider-crank.
    """
    if control.linkage is None:
        return (stroke + booster_lost) * control.ratio + control.free_play
    arc, ratio = linkage.arc_and_ratio(control.linkage, control.pivot_to_pad, stroke)
    return arc + booster_lost * ratio + control.free_play


def pin_window(pivot_to_pad: Number, stroke: Number, booster_lost: Number, available: Number, free_play: Number) -> Number:
    """Least pivot-to-pin distance [m] at which the whole stroke fits the room, a·(stroke + lost)/(available − free play).

    `pivot_to_pad` [m], `stroke` [m], `booster_lost` [m], `available` [m], `free_play` [m]. Any shape. Source: lever law.
    """
    return pivot_to_pad * (stroke + booster_lost) / (available - free_play)
