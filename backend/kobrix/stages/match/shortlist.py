"""The few of a search's setups worth showing, each with the reasons why a person might choose it."""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kobrix.core.numerics.arrays import Floats, Mask

MOST_LISTED = 7  # setups shown
_CLOSE = 0.02  # of the range: what lies nearer to another that is shown already is left out of "balanced"


@dataclass(frozen=True)
class Candidates:
    """What is known of the setups to choose from (N,): `effort` [N], `travel` [m], `grip_use` [1], `left` [g], `price`, NaN where
    not known; `same_pin`, `same_bore`, `no_valve`, `as_it_stands` [yes or no]; `miss` [1] from what is wanted, None if nothing is."""

    effort: Floats
    travel: Floats
    grip_use: Floats
    left: Floats
    price: Floats
    same_pin: Mask
    same_bore: Mask
    no_valve: Mask
    as_it_stands: Mask
    miss: Floats | None


def _scaled(values: Floats, fill: float) -> Floats:
    known = np.where(np.isfinite(values), values, fill)
    span = float(np.ptp(known)) if known.size else 0.0
    return np.asarray((known - known.min()) / span if span > 0.0 else np.zeros(known.shape))


def balance(field: Candidates) -> Floats:
    """How much a setup asks in all [1] (N,): push, travel and price, and what it leaves when a circuit is lost and of the
    grip, each over the range there is. A tie-breaker, not a verdict. Source: our own weighing, all alike."""
    dear = float(np.nanmax(field.price)) if np.isfinite(field.price).any() else 0.0
    parts = [field.effort, field.travel, -field.left, -field.grip_use, field.price]
    return np.asarray(sum(_scaled(p, dear) for p in parts))


def shortlist(field: Candidates, keeps: dict[str, bool]) -> list[tuple[int, list[str]]]:
    """Numbers of the setups worth showing with their reasons, the most telling first.

    `keeps` {"pin", "bore", "valve": whether the search lets it change}: a reason is given only where there was a choice.
    """
    count = field.effort.size
    if count == 0:
        return []
    whole = balance(field)
    every = np.ones(count, dtype=bool)
    found: dict[int, list[str]] = {}

    def best(among: Mask, first: Floats, say: Callable[[int], str]) -> None:
        own = np.flatnonzero(among & np.isfinite(first))
        if own.size == 0:
            return
        least = first[own].min()
        near = own[first[own] <= least + 1e-9 * max(1.0, abs(float(least)))]
        n = int(near[np.argmin(whole[near])])
        found.setdefault(n, []).append(say(n))

    def number(value: float) -> str:
        return f"{value:.0f}"

    if field.miss is not None:
        best(
            every,
            field.miss,
            lambda n: f"nearest to what is wanted: {number(field.effort[n])} N, {number(field.travel[n] * 1e3)} mm",
        )
    if field.as_it_stands.any():
        best(field.as_it_stands, whole, lambda _: "the setup as it stands: nothing to change")
    if keeps["pin"]:
        best(field.same_pin, whole, lambda _: "the pin stays where it is: no hole, no mounting to move")
    if keeps["bore"]:
        best(field.same_bore, whole, lambda _: "keeps the cylinder that is fitted")
    best(every, field.effort, lambda n: f"the lightest push of all: {number(field.effort[n])} N")
    best(every, field.travel, lambda n: f"the shortest travel: {number(field.travel[n] * 1e3)} mm")
    if np.ptp(field.left) > 1e-6:
        best(every, -field.left, lambda n: f"the most left with a circuit lost: {field.left[n]:.2f} g")
    if np.ptp(field.grip_use) > 1e-6:
        best(every, -field.grip_use, lambda n: f"uses the most of the grip before a wheel locks: {field.grip_use[n] * 100:.0f} %")
    if np.isfinite(field.price).any() and np.nanmax(field.price) > np.nanmin(field.price):
        best(
            every, field.price, lambda n: "nothing to buy" if field.price[n] == 0.0 else f"the cheapest: {number(field.price[n])}"
        )
    if keeps["valve"]:
        best(field.no_valve, whole, lambda _: "no valve to buy and set")
    best(every, whole, lambda _: "the best balance of push, travel, grip and what a lost circuit leaves")
    return list(found.items())[:MOST_LISTED]


def ranked(field: Candidates) -> NDArray[np.int64]:
    """Numbers of all setups (N,), those that ask least in all first."""
    return np.argsort(balance(field), kind="stable")
