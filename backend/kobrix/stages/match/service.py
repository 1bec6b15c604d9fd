"""A search through every combination, in parts, so that its progress shows and it can be stopped; the same for the same seed."""

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from kobrix.core.numerics.arrays import Floats, Mask
from kobrix.core.rules.limits import TRAVEL
from kobrix.core.search import engine, pareto
from kobrix.core.search.engine import Tried
from kobrix.core.search.left import least_left
from kobrix.core.search.pareto import LIMITS
from kobrix.evaluate.as_found import as_found_trials
from kobrix.evaluate.solve import Answer, wanted_stop
from kobrix.evaluate.uncertainty import FEWER, TRIALS
from kobrix.fileformat.job import AS_FOUND, Job
from kobrix.fileformat.paths import Edit, JsonObject
from kobrix.fileformat.quantities import si
from kobrix.stages.match.alone import alone
from kobrix.stages.match.chances import Joint, uncertainty_of
from kobrix.stages.match.request import Search
from kobrix.stages.match.shapes import Fallen, Found, Kept, LetIn, Mark, Miss, Scale, Squares
from kobrix.stages.match.shortlist import Candidates, ranked, shortlist
from kobrix.stages.match.space import Space, Spread, edited, space_of

_AT_ONCE = 20_000  # combinations whose lost circuits are looked at together
PART = 60_000  # combinations at once
ACROSS, UP = 84, 56  # squares of the plot
MOST_SHOWN = 200  # setups that nothing beats, in the table and the file
_MORE = {"effort": 0.10, "price": 0.10, "early_lock": 0.02}  # how far a limit is let out when it is asked what would let more in
SURE = 0.90  # of plausible vehicles that hold every limit: worth buying, our estimate
_TOLD = 25  # setups between two reports of how far their trials are
_LEAST, _MISSES = 3, 3  # shown where fewer are sure; near misses
_MORE_ROOM = 0.010  # m of pedal room


class Run:
    """One search under way: `ask` on a `job`; `step` tries the next part, `finish` chooses and doubts."""

    def __init__(self, job: Job, ask: Search) -> None:
        self.alone = alone(job, ask.setup, ask.control)
        self.job, self.ask = self.alone.job, ask
        job = self.job
        names = [AS_FOUND, *(p.name for p in job.plans)]
        self.answers = {name: Answer(job.setup(name)) for name in names}
        decel = wanted_stop(list(self.answers.values())) or 0.0
        self.space: Space = space_of(job, ask, decel, self.answers[AS_FOUND])
        self.near: list[_Near] = []
        self.total, self.done = self.space.count, 0
        band, room = self.space.band, self.space.room
        self.scale: Scale = {"travel_mm": room * 1.1e3, "push_n": math.ceil(band.danger * 1.5 / 50.0) * 50.0}
        self.squares = np.zeros((len(LIMITS) + 1, UP * ACROSS), dtype=np.int64)
        self.outside = 0
        self.firsts = np.zeros(len(LIMITS) + 1, dtype=np.int64)
        self.only = dict.fromkeys(LIMITS, 0)
        self.freed = dict.fromkeys(("effort", "price", "early_lock", "travel", "sharing"), 0)
        self._kept: list[tuple[int, Any, Any, Floats]] = []
        self._work = self._parts()

    def _parts(self) -> Iterator[None]:
        space = self.space
        for s, spread in enumerate(space.spreads):
            for rows in engine.parts_of(spread.block, PART):
                tried = engine.evaluate(spread.block, rows, space.load, space.wheels, space.bounds)
                self._take(s, rows, tried)
                self.done += tried.effort.size
                yield

    def step(self) -> bool:
        """Try the next part; whether there was one."""
        return next(self._work, self) is None

    def _take(self, s: int, rows: Any, tried: Tried) -> None:
        first, only = pareto.tally(tried.broken)
        self.firsts += first
        for name, n in only.items():
            self.only[name] += n
        x = np.minimum(tried.travel * (ACROSS / (self.scale["travel_mm"] * 1e-3)), ACROSS).astype(np.int32)
        y = np.minimum(tried.effort * (UP / self.scale["push_n"]), UP).astype(np.int32)
        inside = (x < ACROSS) & (y < UP)
        self.outside += int(inside.size - np.count_nonzero(inside))
        cell = (pareto.first_broken(tried.broken) * (UP * ACROSS) + y * ACROSS + x)[inside]
        self.squares += np.bincount(cell, minlength=self.squares.size).reshape(self.squares.shape)
        self._free(tried, only)
        self._come_near(s, rows, tried, only)
        foot, behind = np.nonzero(tried.broken == 0)
        least = engine.lightest(self.space.spreads[s].block, foot, tried.pressure[behind], tried.volume[behind])
        figures = np.stack([
            tried.effort[foot, behind], least, tried.travel[foot, behind], tried.grip_use[behind], tried.price[foot, behind],
        ])  # fmt: skip
        self._kept.append((s, foot, rows[behind], figures))

    def _free(self, tried: Tried, only: dict[str, int]) -> None:
        """Count what a limit let out by one step would let in."""
        bounds, room = self.space.bounds, self.space.room
        price = np.inf if bounds.price is None else bounds.price * (1.0 + _MORE["price"])
        let: dict[str, Callable[[], Any]] = {
            "effort": lambda: tried.effort <= bounds.effort * (1.0 + _MORE["effort"]),
            "travel": lambda: tried.travel <= bounds.travel_share * (room + _MORE_ROOM),
            "early_lock": lambda: tried.first_lock >= bounds.first_lock - _MORE["early_lock"],
            "sharing": lambda: True,
            "price": lambda: tried.price <= price,
        }
        for name, inside in let.items():
            if only[name]:
                self.freed[name] += int(np.count_nonzero(pareto.only_broken(tried.broken, name) & inside()))

    def _come_near(self, s: int, rows: Any, tried: Tried, only: dict[str, int]) -> None:
        """Keep the setups that break one limit by the least."""
        bounds, room = self.space.bounds, self.space.room
        figures: dict[str, tuple[Any, float, float]] = {
            "effort": (tried.effort, bounds.effort, 1.0), "travel": (tried.travel, bounds.travel_share * room, 1.0),
            "early_lock": (np.broadcast_to(tried.first_lock, tried.effort.shape), bounds.first_lock, -1.0),
        }  # fmt: skip
        if bounds.price is not None:
            figures["price"] = (tried.price, bounds.price, 1.0)
        for name, (own, limit, sign) in figures.items():
            if not only[name]:
                continue
            over = np.where(pareto.only_broken(tried.broken, name), sign * (own / limit - 1.0), np.inf)
            at = np.unravel_index(int(np.argmin(over)), over.shape)
            if np.isfinite(over[at]):
                self.near.append(_Near(float(over[at]), name, float(own[at]), s, int(at[0]), int(rows[at[1]])))
        self.near = sorted(self.near, key=lambda n: n.over)[:_MISSES]

    # ---- what is shown ---------------------------------------------------------------------------

    def progress(self) -> Found:
        """What is known so far: how many were tried, where they lie, and why the others fell."""
        bounds, ask = self.space.bounds, self.ask
        fall: list[Fallen] = [
            {"id": name, "words": self._words(name), "count": int(n), "only": self.only[name]}
            for name, n in zip(LIMITS, self.firsts, strict=False)
            if n
        ]
        return {
            "setup": ask.setup, "control": self.alone.name, "total": self.total, "done": self.done, "outside": self.outside, "unfit": self.space.unfit,
            "decel_g": bounds.decel, "room_mm": self.space.room * 1e3, "effort_n": bounds.effort, "travel_share": bounds.travel_share,
            "first_lock_g": bounds.first_lock, "band": {"low": self.space.band.low, "good": self.space.band.good},
            "scale": self.scale, "across": ACROSS, "up": UP, "squares": self._squares(), "meet": int(self.firsts[-1]),
            "fall": fall, "more": self._let_more_in(), "setups": self._setups(), "not_beaten": 0, "untried": 0, "to_look": 0, "looked": 0, "misses": [],
            "kept": [],
        }  # fmt: skip

    def _squares(self) -> list[Squares]:
        found: list[Squares] = []
        for n, own in enumerate(self.squares):
            at = np.flatnonzero(own)
            if at.size:
                found.append({"id": LIMITS[n] if n < len(LIMITS) else "kept", "at": at.tolist(), "count": own[at].tolist()})
        return found

    def _words(self, name: str) -> str:
        bounds = self.space.bounds
        return {
            "no_stop": f"never stops at {bounds.decel:.2f} g",
            "rear_first": "rear locks first" + (" or lifts" if bounds.lift else ""),
            "early_lock": f"a wheel locks below {bounds.first_lock:.2f} g",
            "effort": f"push above {bounds.effort:.0f} N",
            "travel": f"travel above {bounds.travel_share * 100:.0f} % of the room",
            "stroke": "a chamber is spent before the stop",
            "wheel_room": "the rotor does not go into the wheel",
            "slippery": "rear locks first on a slippery road",
            "sharing": "breaks the sharing rule for cars",
            "lost_circuit": f"too little left when something is lost (least {bounds.left or 0.0:.2f} g)",
            "price": f"price above {bounds.price or 0.0:.0f}, or not known",
        }[name]

    def _let_more_in(self) -> list[LetIn]:
        """What a limit let out by one step would let in, most first; a danger is told, never let out."""
        bounds, band = self.space.bounds, self.space.band
        effort, room = bounds.effort * (1.0 + _MORE["effort"]), _MORE_ROOM * 1e3
        lock = bounds.first_lock - _MORE["early_lock"]
        ways: list[tuple[str, str, JsonObject | None]] = [
            ("effort", f"with a push up to {effort:.0f} N", {"effort_n": round(effort)} if effort <= band.danger else None),
            ("travel", f"with {room:.0f} mm more room under the pedal", None),
            ("early_lock", f"with the first lock at {lock:.2f} g enough", {"first_lock_g": round(lock, 4)}),
            ("sharing", "without the sharing rule for cars", {"sharing": False}),
            ("price", f"for up to {(bounds.price or 0.0) * (1.0 + _MORE['price']):.0f}",
             {"price": round((bounds.price or 0.0) * (1.0 + _MORE["price"]))}),
        ]  # fmt: skip
        found: list[LetIn] = [
            {"id": key, "words": words, "count": self.freed[key], "limits": change} for key, words, change in ways
        ]
        return sorted((doc for doc in found if doc["count"]), key=lambda doc: -doc["count"])

    def _setups(self) -> list[Mark]:
        """As found and the plans at the same stop, where they lie on the plot."""
        found: list[Mark] = []
        for name, answer in self.answers.items():
            if answer.solved is None:
                continue
            path = answer.solved.main.healthy
            place, known = path.reach(self.space.bounds.decel)
            pull = path.pulls[0]
            if len(answer.solved.systems) != 1 or not np.all(known) or pull.pedal.travel is None:
                continue
            found.append(
                {
                    "name": name,
                    "push_n": float(np.max(path.push_at(place))),
                    "travel_mm": float(np.max(pull.pedal.pad_at(place))) * 1e3,
                }
            )
        return found

    # ---- the choice ------------------------------------------------------------------------------

    def finish(self, on_part: Callable[[Found], bool] = lambda _: True) -> Found:
        """Choose among what meets every limit: what nothing beats, the few worth buying, and how sure their figures are.

        `on_part` gets the progress of the trials and says whether to go on; stopped, the rest stay untried."""
        doc = self.progress()
        met = self._met()
        costs = self._costs(met)
        stands = met.unchanged(self.space.spreads)
        beats, chosen = self._fronts(costs)
        shown = np.flatnonzero(chosen | stands)
        doc["untried"] = int(stands.size - shown.size)
        sure, looked = self._joint(met, shown, doc, on_part)
        doc["untried"] += int(shown.size - looked)
        shown, sure = shown[:looked], sure[:looked]
        worth, fine = self._worth(costs[shown], sure, stands[shown])
        shown, sure, fine = shown[worth], sure[worth], fine[worth]
        field = self._field(met, shown, stands)
        open_to = {"pin": self.ask.pins is not None, "bore": self.ask.bores is not None, "valve": self.ask.valve is not None}
        best = np.flatnonzero(fine | stands[shown])
        listed = {int(best[n]): why for n, why in shortlist(self._field(met, shown[best], stands), open_to)}
        if sure.size and not np.any(fine & (sure >= SURE)):
            surest = int(np.argmax(sure))
            listed.setdefault(surest, []).append("the surest there is, though not sure enough")
        rest = [int(n) for n in ranked(field) if int(n) not in listed]
        first = list(listed)
        if field.miss is None:
            first.sort(key=lambda n: -_floored(sure[n]))  # the surest first
        order = [*first, *sorted(rest, key=lambda n: -_floored(sure[n]))]
        doc["not_beaten"] = int(np.count_nonzero(beats))
        doc["kept"] = [
            self._row(met, int(shown[n]), listed.get(n, []), stands, beats, float(sure[n])) for n in order[:MOST_SHOWN]
        ]
        doc["misses"] = [] if doc["kept"] else [self._miss(n) for n in self.near]
        setup, found = self.job.setup(self.ask.setup), as_found_trials(self.job, TRIALS, self.ask.seed)
        for row in doc["kept"][: len(listed)]:
            changed = edited(setup, row["edits"])
            told = uncertainty_of(self.job, self.ask.setup, changed, self.space.bounds, self.ask.seed, TRIALS, found)
            row["doubt"], row["joint_chance"] = told, told["joint_chance"]
            row["sure"] = (row["joint_chance"] or 0.0) >= SURE
            for entry in told["measure"]:
                entry["path"] = self.alone.path(entry["path"])
        for made in (*doc["kept"], *doc["misses"]):
            made["edits"] = self.alone.edits(made["edits"])
        return doc

    def _fronts(self, costs: Floats) -> tuple[Mask, Mask]:
        """What nothing beats, and with it whole further fronts until there are enough to have their trials."""
        first: Mask = np.zeros(costs.shape[0], dtype=bool)
        looked: Mask = np.zeros(costs.shape[0], dtype=bool)
        while looked.sum() < MOST_SHOWN and not looked.all():
            left = np.flatnonzero(~looked)
            own = left[pareto.non_dominated(costs[left])]
            if not first.any():
                first[own] = True
            elif looked.sum() + own.size > MOST_SHOWN:
                break
            looked[own] = True
        return first, looked

    def _joint(self, met: "Met", shown: Any, doc: Found, on_part: Callable[[Found], bool]) -> tuple[Floats, int]:
        """The chance of each shown setup to hold every limit at once, on fewer trials; and how many had theirs."""
        found = as_found_trials(self.job, FEWER, self.ask.seed)
        joint = Joint(self.job, self.ask.setup, self.space.bounds, self.ask.seed, FEWER, found)
        sure = np.zeros(shown.size)
        for k, n in enumerate(shown):
            if k % _TOLD == 0 and not on_part({**doc, "to_look": int(shown.size), "looked": k}):
                return sure, max(k, 1)
            sure[k] = joint.chance(self._edits(met, int(n)))
        return sure, int(shown.size)

    def _edits(self, met: "Met", n: int) -> list[Edit]:
        chosen = self.space.spreads[met.spread[n]].chosen(int(met.foot[n]), int(met.behind[n]))
        return [edit for choice in chosen.values() for edit in choice.edits]

    def _worth(self, costs: Floats, sure: Floats, stands: Mask) -> tuple[Any, Mask]:
        """Which are shown, those that nothing beats once their chance counts and the setup as it stands; and which of all are worth buying:
        at least 90 % sure, or the best three by chance where there are fewer."""
        if sure.size == 0:
            return np.zeros(0, dtype=np.int64), np.zeros(0, dtype=bool)
        beats = pareto.non_dominated(np.column_stack([-np.floor(sure * 20.0 + 1e-9) / 20.0, costs]))
        fine = beats & (sure >= SURE)
        if fine.sum() < _LEAST:
            fine = np.zeros(sure.size, dtype=bool)
            fine[np.argsort(-sure, kind="stable")[:_LEAST]] = True
        return np.flatnonzero(fine | beats | stands), fine

    def _miss(self, near: "_Near") -> Miss:
        """A setup that breaks one limit by a little, with the value at which it would be let in."""
        own = self.space.spreads[near.spread]
        chosen = own.chosen(near.foot, near.behind)
        said = {
            "effort": f"push {near.figure:.0f} N, {near.over * 100:.0f} % over", "travel": f"travel {near.figure * 1e3:.0f} mm, {near.over * 100:.0f} % over",
            "early_lock": f"a wheel locks at {near.figure:.2f} g, {near.over * 100:.0f} % early", "price": f"price {near.figure:.0f}",
        }[near.limit]  # fmt: skip
        return {
            "words": {name: c.words for name, c in chosen.items()}, "limit": near.limit, "said": said, "limits": self._opened(near),
            "edits": [edit for c in chosen.values() for edit in c.edits],
        }  # fmt: skip

    def _opened(self, near: "_Near") -> JsonObject | None:
        """The value of its one limit at which a near miss appears; None where a danger stands before it."""
        figure, band = near.figure, self.space.band
        if near.limit == "effort":
            push = math.ceil(figure)
            return {"effort_n": push} if push <= band.danger else None
        if near.limit == "travel":
            share = math.ceil(figure / self.space.room * 1000.0) / 1000.0
            return {"travel_share": share} if share <= TRAVEL.danger else None
        if near.limit == "early_lock":
            return {"first_lock_g": math.floor(figure * 1000.0) / 1000.0}
        return {"price": math.ceil(figure)}

    def _met(self) -> "Met":
        """Every combination that meets all limits, with what is left when a circuit is lost."""
        some = [(np.full(foot.size, s), foot, behind, figures) for s, foot, behind, figures in self._kept]
        spread, foot, behind = (np.concatenate([part[k] for part in some]) for k in range(3))
        figures = np.concatenate([part[3] for part in some], axis=1)
        left = np.zeros(spread.size)
        for s, own in enumerate(self.space.spreads):
            mine = np.flatnonzero(spread == s)
            for first in range(0, mine.size, _AT_ONCE):
                at = mine[first : first + _AT_ONCE]
                left[at] = least_left(own.block, foot[at], behind[at], self.space.load, self.space.wheels, self.space.bounds)
        return Met(spread, foot, behind, figures, left)

    def _costs(self, met: "Met") -> Floats:
        """What counts, the less the better (N, 5): push and travel against what is good or wanted, grip, what is left, price."""
        wanted, band = self.ask.wanted, self.space.band
        effort, lightest, travel, use, price = met.figures
        push = pareto.beyond_band(lightest, effort, band.low, band.good)
        if wanted.effort_n is not None:
            push = np.abs(effort - si(wanted.effort_n, "effort_n"))
        if wanted.travel_mm is not None:
            travel = np.abs(travel - si(wanted.travel_mm, "travel_mm"))
        return np.stack([push, travel, -use, -met.left, np.where(np.isfinite(price), price, np.inf)], axis=1)

    def _field(self, met: "Met", shown: Any, stands: Any) -> Candidates:
        effort, _, travel, use, price = met.figures[:, shown]
        wanted = self.ask.wanted
        miss = None
        if wanted.effort_n is not None or wanted.travel_mm is not None:
            miss = np.zeros(shown.size)
            if wanted.effort_n is not None:
                miss = miss + wanted.effort_weight * np.abs(effort / si(wanted.effort_n, "effort_n") - 1.0)
            if wanted.travel_mm is not None:
                miss = miss + wanted.travel_weight * np.abs(travel / si(wanted.travel_mm, "travel_mm") - 1.0)
        pin, bore, valve = (np.zeros(shown.size, dtype=bool) for _ in range(3))
        for k, n in enumerate(shown):
            own = self.space.spreads[met.spread[n]]
            chosen = own.chosen(int(met.foot[n]), int(met.behind[n]))
            pin[k], bore[k] = not chosen["pin"].edits, not chosen["cylinder"].edits
            valve[k] = not own.valved(int(met.behind[n]))
        return Candidates(effort, travel, use, met.left[shown], price, pin, bore, valve, stands[shown], miss)

    def _row(self, met: "Met", n: int, reasons: list[str], stands: Mask, beats: Mask, sure: float) -> Kept:
        """One setup: what it is made of, its figures, the edits that make it, and why it is shown."""
        own = self.space.spreads[met.spread[n]]
        chosen = own.chosen(int(met.foot[n]), int(met.behind[n]))
        effort, lightest, travel, use, price = (float(v) for v in met.figures[:, n])
        return {
            "words": {name: c.words for name, c in chosen.items()}, "push_n": effort, "lightest_n": lightest, "travel_mm": travel * 1e3,
            "travel_share": travel / self.space.room, "grip_use": use, "left_g": float(met.left[n]),
            "price": price if math.isfinite(price) else None, "edits": [edit for c in chosen.values() for edit in c.edits],
            "reasons": reasons, "as_it_stands": bool(stands[n]), "beaten": not bool(beats[n]), "joint_chance": sure,
            "sure": sure >= SURE, "doubt": None,
        }  # fmt: skip


def _floored(chance: float) -> float:
    """A chance floored to five per cent: finer than that the trials do not tell."""
    return math.floor(chance * 20.0 + 1e-9) / 20.0


@dataclass(frozen=True)
class _Near:
    """A setup that breaks one `limit`: by how much of it, its `figure` in SI, and its numbers."""

    over: float
    limit: str
    figure: float
    spread: int
    foot: int
    behind: int


@dataclass(frozen=True)
class Met:
    """Combinations that meet every limit (N,): their `spread`, their numbers `foot` and `behind` the push, their `figures`
    effort [N], lightest [N], travel [m], grip use [1] and price (5, N), and what is `left` [g] with a circuit lost."""

    spread: Any
    foot: Any
    behind: Any
    figures: Floats
    left: Floats

    def unchanged(self, spreads: tuple[Spread, ...]) -> Any:
        """Which of them is the setup as it stands."""
        found = np.zeros(self.spread.size, dtype=bool)
        for s, own in enumerate(spreads):
            numbers = own.unchanged()
            if numbers is not None:
                found |= (self.spread == s) & (self.foot == numbers[0]) & (self.behind == numbers[1])
        return found


def search(job: Job, ask: Search, on_part: Callable[[Found], bool] = lambda _: True) -> Found:
    """The whole result of an `ask` on a `job`; `on_part` gets the progress after each part and says whether to go on.

    Raises BadEntry, Impossible and NotFound in words.
    """
    run = Run(job, ask)
    while run.step():
        if not on_part(run.progress()):
            break
    return run.finish(on_part)
