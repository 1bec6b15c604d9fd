"""The definitions of docs/model.md written a second time, plainly and by search, against the result file of random setups.

Shares no code with the product: numbers come straight from the file, one push at a time, locks by a root finder.
"""

import math
import unittest
from typing import Any

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from kobrix.fileformat import files
from kobrix.fileformat.models import Setup
from kobrix.fileformat.questions import Questions
from scipy.optimize import brentq

from tests.cases import evaluate

G, ATM = 9.80665, 101.325
Doc = dict[str, Any]


class Plain:
    """One setup of one system, read from its file: mm, N, kPa, kg."""

    def __init__(self, document: Doc, load: int = 0, **failure: Any) -> None:
        self.v, self.s = document["vehicle"], document["systems"][0]
        self.load, self.failure = self.v["load_states"][load], failure

    def booster(self, rod: float) -> float:
        b = self.s.get("booster")
        if b is None:
            return rod
        if self.failure.get("lost_booster"):
            return float(max(0.0, rod - b["return_spring_n"]))
        if rod <= b["cut_in_n"]:
            return 0.0
        return float(rod + min(b["jump_in_n"] + (b["gain"] - 1) * (rod - b["cut_in_n"]), b["limit_n"]))

    def chambers(self) -> list[tuple[str, float, float, float, float]]:
        """Circuit, share, area mm², stroke, port closing; a tandem's primary (front) first."""
        c = self.s["cylinder"]
        if c["kind"] == "twin":
            beta = c["bar"]["front_share"]
            halves = (("front", beta, c["front"]), ("rear", 1 - beta, c["rear"]))
            return [(n, b, math.pi / 4 * h["bore_mm"] ** 2, h["stroke_mm"], h["lost_mm"]) for n, b, h in halves]
        area = math.pi / 4 * c["bore_mm"] ** 2
        if c["kind"] == "single":
            return [("circuit", 1.0, area, c["stroke_mm"], c["lost_mm"])]
        return [("front", 1.0, area, c["stroke_mm"] * 0.5, c["lost_mm"]), ("rear", 1.0, area, c["stroke_mm"] * 0.5, c["lost_mm"])]

    def pressures(self, out: float) -> dict[str, float]:
        """MPa in each circuit."""
        c, found = self.s["cylinder"], {}
        for name, share, area, _, _ in self.chambers():
            p = max(0.0, out * share * c["efficiency"] - c["spring_n"]) / area
            found[name] = 0.0 if self.failure.get("lost") == name else p
        return found

    def after(self, station: Doc, p: float) -> float:
        """MPa behind the devices."""
        for d in station.get("devices", []):
            if d["kind"] == "proportioning":
                k = d["knee_kpa"] / 1e3
                p = p if p <= k else k + d["slope"] * (p - k)
            elif d["kind"] == "limiting":
                p = min(p, d["setting_kpa"] / 1e3)
            elif d["kind"] == "metering":
                h, b = d["hold_kpa"] / 1e3, d["blend_kpa"] / 1e3
                p = 0.0 if p <= h else p if p >= b else b * (p - h) / (b - h)
        return p

    def mu(self, brake: Doc) -> float:
        return float(brake["friction"].get(self.failure.get("friction", "cold"), brake["friction"]["cold"]))

    def torque(self, brake: Doc, p: float) -> float:
        """N·m of one wheel."""
        press = max(0.0, p - brake["threshold_kpa"] / 1e3)
        if brake["kind"] == "disc":
            area = sum(math.pi / 4 * d**2 for d in brake["pistons_mm"])
            outer = brake["rotor_diameter_mm"] / 2 - 1.5
            inner = outer - brake["pad_height_mm"]
            radius = (outer + inner) / 2
            return float(2 * self.mu(brake) * brake["efficiency"] * area * press * radius / 1e3)
        k, mu = 0.8, self.mu(brake)
        factor = {"leading_trailing": 4 * mu * k * k / (k * k - mu * mu), "two_leading": 4 * mu * k / (k - mu),
                  "duo_servo": 4 * mu * k * k / (k - mu) ** 2}[brake["shoes"]]  # fmt: skip
        return float(0.96 * math.pi / 4 * brake["wheel_cylinder_mm"] ** 2 * press * factor * brake["drum_diameter_mm"] / 2 / 1e3)

    def taken_rows(self, station: Doc, p: float) -> float:
        """mm³ that a station takes at a pressure behind its devices."""
        if p <= 0.0:
            return 0.0
        brake, lines = station["brake"], station["lines"]
        if brake["kind"] == "disc":
            area = sum(math.pi / 4 * d**2 for d in brake["pistons_mm"])
            kappa = 0.0075 if brake["caliper"] == "fixed" else 0.012
            volume = 2 * 2 * area * (brake["clearance_mm"] + (kappa + 0.008) * p)
        else:
            volume = 2 * 2 * math.pi / 4 * brake["wheel_cylinder_mm"] ** 2 * 0.5 + 2 * 100 * p
        volume += sum(120 * h["length_mm"] / 1e3 * h["count"] * p for h in lines["hoses"])
        air = lines["air_cm3"] * 1e3
        return float(volume + lines["fluid_volume_cm3"] * 1e3 * p / 1800 + air * p / (p + ATM / 1e3))

    def at(self, push: float) -> Doc:
        """Everything at one push."""
        c = self.s["control"]
        ratio = c["pivot_to_pad_mm"] / c["pivot_to_pin_mm"]
        rod = max(0.0, ratio * push * c["efficiency"] - c["return_force_n"])
        p = self.pressures(self.booster(rod))
        axles, stroke, parts = {"front": 0.0, "rear": 0.0}, {}, self.chambers()
        for name, _, area, _, lost in parts:
            fed = [s for s in self.s["stations"] if name == "circuit" or s["axle"] == name]
            volume = 0.0
            for station in fed:
                out = self.after(station, p[name])
                axles[station["axle"]] += 2 * self.torque(station["brake"], out) / (station["rolling_radius_mm"] / 1e3)
                volume += self.taken_rows(station, out)
            stroke[name] = lost + volume / area if p[name] > 0.0 else 0.0
        pressed = any(v > 0.0 for v in p.values())
        for name, _, _, own, _ in parts:
            if pressed and self.failure.get("lost") == name:
                other = next(n for n, *_ in parts if n != name)
                stop = self.s["cylinder"].get("bar", {}).get("stop_mm")
                stroke[name] = own if stop is None else min(own, stroke[other] + stop)
        x = sum(share * stroke[n] if self.s["cylinder"]["kind"] == "twin" else stroke[n] for n, share, *_ in parts)
        b = self.s.get("booster")
        pad = x * ratio + c["free_play_mm"] + (b["lost_travel_mm"] * ratio if b else 0.0) if pressed else 0.0
        z = sum(axles.values()) / (self.load["mass_kg"] * G)
        return {"rod": rod, "pad": pad, "x": x, "front": axles["front"], "rear": axles["rear"], "z": z}

    def missing(self, push: float, axle: str) -> float:
        """Brake force less what the axle's tyres bear."""
        at, psi, chi = self.at(push), self.load["front_share"], self.load["cg_height_mm"] / self.v["wheelbase_mm"]
        share = psi + at["z"] * chi if axle == "front" else 1 - psi - at["z"] * chi
        return float(at[axle] - self.v[f"grip_{axle}"] * self.load["mass_kg"] * G * share)

    def lock(self, axle: str) -> tuple[float, float] | None:
        """Decelerations just below and above an axle's lock, by walking up and a root finder; None within 20 kN of push.

        The two differ where the lock lies inside a leap, at which one push stands for many decelerations.
        """
        before = 0.0
        for push in [10.0 * 1.05**n for n in range(157)]:
            if self.missing(push, axle) >= 0.0:
                root = float(brentq(self.missing, before, push, args=(axle,), xtol=1e-12, rtol=1e-14))
                return float(self.at(root * (1 - 1e-10))["z"]), float(self.at(root * (1 + 1e-10))["z"])
            before = push
        return None


def disc(draw: Any) -> Doc:
    fixed = draw(st.booleans())
    return {"kind": "disc", "caliper": "fixed" if fixed else "floating", "pistons_mm": draw(st.lists(st.floats(25, 60), min_size=1, max_size=3)),
            "rotor_diameter_mm": draw(st.floats(220, 340)), "pad_height_mm": draw(st.floats(30, 55)), "efficiency": 0.98,
            "friction": {"cold": draw(st.floats(0.25, 0.5)), "hot": draw(st.floats(0.15, 0.4))},
            "threshold_kpa": draw(st.sampled_from([0, 40])), "clearance_mm": draw(st.floats(0.05, 0.3))}  # fmt: skip


def drum(draw: Any) -> Doc:
    return {"kind": "drum", "wheel_cylinder_mm": draw(st.floats(15, 26)), "drum_diameter_mm": draw(st.floats(180, 300)),
            "shoes": draw(st.sampled_from(["leading_trailing", "two_leading", "duo_servo"])), "friction": {"cold": draw(st.floats(0.25, 0.45))},
            "threshold_kpa": 300}  # fmt: skip


def devices(draw: Any) -> list[Doc]:
    kinds: list[Doc] = [
        {"kind": "proportioning", "knee_kpa": draw(st.floats(800, 6000)), "slope": draw(st.floats(0.1, 0.7))},
        {"kind": "metering", "hold_kpa": 200.0, "blend_kpa": draw(st.floats(400, 2000))},
        {"kind": "limiting", "setting_kpa": draw(st.floats(2000, 9000))},
    ]
    return draw(st.lists(st.sampled_from(kinds), max_size=2))  # type: ignore[no-any-return]


@st.composite
def setups(draw: Any) -> Doc:
    """A car of one pedal: any booster, cylinder, brakes and valves of the definitions, no defaults left to guess."""
    half = {"bore_mm": draw(st.floats(15, 24)), "stroke_mm": draw(st.floats(25, 40)), "lost_mm": 1.0}
    bar: Doc = {"front_share": draw(st.floats(0.35, 0.65))}
    if draw(st.booleans()):
        bar["stop_mm"] = draw(st.floats(3, 15))
    cylinder: Doc = draw(st.sampled_from([
        {"kind": "single", **half}, {"kind": "tandem", **half}, {"kind": "twin", "front": half, "rear": {**half, "bore_mm": 19.05}, "bar": bar},
    ]))  # fmt: skip
    booster = {"kind": "electric", "gain": draw(st.floats(1.5, 5)), "cut_in_n": draw(st.floats(20, 80)), "jump_in_n": draw(st.floats(0, 250)),
               "limit_n": draw(st.floats(300, 2500)), "lost_travel_mm": 1.0, "return_spring_n": 110}  # fmt: skip
    stations = []
    for axle in ("front", "rear"):
        lines = {"hoses": [{"kind": "rubber", "length_mm": draw(st.floats(200, 600)), "count": 2}], "fluid_volume_cm3": draw(st.floats(40, 120)),
                 "air_cm3": draw(st.sampled_from([0, 0, 1.2]))}  # fmt: skip
        brake = drum(draw) if axle == "rear" and draw(st.booleans()) else disc(draw)
        stations.append({"name": axle, "axle": axle, "rolling_radius_mm": draw(st.floats(260, 340)), "brake": brake,
                         "devices": devices(draw) if axle == "rear" else [], "lines": lines})  # fmt: skip
    system: Doc = {
        "name": "service", "stations": stations, "cylinder": {**cylinder, "efficiency": 0.95, "spring_n": draw(st.sampled_from([0, 25]))},
        "control": {"kind": "car_pedal", "pivot_to_pad_mm": 300, "pivot_to_pin_mm": draw(st.floats(45, 90)), "free_play_mm": 3,
                    "available_travel_mm": 140, "efficiency": 0.92, "return_force_n": draw(st.sampled_from([0, 18]))},
    }  # fmt: skip
    if draw(st.booleans()):
        system["booster"] = booster
    load = {
        "name": "one",
        "mass_kg": draw(st.floats(600, 2200)),
        "front_share": draw(st.floats(0.4, 0.65)),
        "cg_height_mm": draw(st.floats(400, 700)),
    }
    return {"format": "kobrix-setup", "version": 1, "name": "random", "systems": [system],
            "vehicle": {"kind": "car", "wheelbase_mm": 2450, "grip_front": draw(st.floats(0.5, 1.1)), "grip_rear": 0.85, "load_states": [load]}}  # fmt: skip


PUSHES = [7.0, 60.0, 180.0, 420.0, 900.0]


class Independent(unittest.TestCase):
    def path(self, document: Doc, **more: Any) -> Doc:
        setup = files.check(Setup, document)
        asked = files.check(Questions, {"pedal_forces_n": PUSHES, **more})
        found: Any = evaluate(setup, asked)["load_states"]["one"]["paths"]["service"]
        return dict(found)

    def close(self, ours: float, plain: float, name: str, rel: float = 1e-9) -> None:
        self.assertTrue(math.isclose(ours, plain, rel_tol=rel, abs_tol=1e-9), f"{name}: {ours}, plainly {plain}")

    @settings(max_examples=80, deadline=None, suppress_health_check=list(HealthCheck))
    @given(setups())
    def test_every_push_and_every_lock(self, document: Doc) -> None:
        path, plain = self.path(document), Plain(document)
        for push, ours in zip(PUSHES, path["at_pedal_force"], strict=True):
            at, own = plain.at(push), ours["systems"]["service"]
            for name, found, wanted in (
                ("rod", own["rod_force_n"], at["rod"]), ("front", ours["front_brake_force_n"], at["front"]),
                ("rear", ours["rear_brake_force_n"], at["rear"]), ("z", ours["decel_g"], at["z"]),
                ("travel", own["pedal_travel_mm"], at["pad"]), ("piston", own["piston_travel_mm"], at["x"]),
            ):  # fmt: skip
                self.close(found, wanted, f"{name} at {push} N")
        for axle in ("front", "rear"):
            ours, wanted_lock = path[f"{axle}_lock_decel_g"], plain.lock(axle)
            if wanted_lock is not None:
                low, high = wanted_lock
                lift = (1 - plain.load["front_share"]) * plain.v["wheelbase_mm"] / plain.load["cg_height_mm"]
                if low > lift * (1 - 1e-8):
                    self.assertTrue(ours is None or high > lift, f"{axle} lock {ours}, past rear lift at {lift}")
                    continue
                self.assertTrue(low * (1 - 1e-8) <= ours <= high * (1 + 1e-8), f"{axle} lock {ours}, plainly {low} to {high}")

    @settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
    @given(setups())
    def test_what_failures_leave(self, document: Doc) -> None:
        path = self.path(document)
        for name, failure in (("lost_front", {"lost": "front"}), ("lost_rear", {"lost": "rear"}), ("hot", {"friction": "hot"}),
                              ("lost_booster", {"lost_booster": True})):  # fmt: skip
            left = path["failures"].get(name)
            if left is None or left["limited_by"] in ("contact", "all_lost"):
                continue
            at = Plain(document, **failure).at(left["pedal_force_n"])
            leap = left["limited_by"] in ("travel", "chamber") and "booster" in document["systems"][0] and name != "lost_booster"
            if leap and left["pedal_force_n"] * 300 / document["systems"][0]["control"]["pivot_to_pin_mm"] * 0.92 < 110:
                continue  # the end may lie inside the leap at cut-in, where one push stands for many stops
            if left["limited_by"] == "travel":
                own, push = Plain(document, **failure), left["pedal_force_n"]
                before, beyond = (own.at(push * (1 + sign * 1e-9))["pad"] for sign in (-1, 1))
                self.assertTrue(before <= 140.0 * (1 + 1e-6) and beyond >= 140.0 * (1 - 1e-6), name)  # or a leap past it
                continue
            self.close(left["decel_g"], at["z"], f"{name} z", 1e-6)

    @settings(max_examples=30, deadline=None, suppress_health_check=list(HealthCheck))
    @given(setups(), st.floats(0.05, 0.6))
    def test_the_push_for_a_stop(self, document: Doc, wanted: float) -> None:
        answer = self.path(document, wanted_decels_g=[wanted])["pedal_force_for_decel"][0]
        if answer["pedal_force_n"] is None:
            self.assertRegex(answer["reason"], "no pedal force reaches|first, at ")
            return
        plain, push = Plain(document), answer["pedal_force_n"]
        if answer["in_jump"]:
            self.assertLessEqual(plain.at(push * (1 - 1e-9))["z"], wanted)
            self.assertGreaterEqual(plain.at(push * (1 + 1e-9))["z"], wanted * (1 - 1e-9))
        else:
            self.close(plain.at(push)["z"], wanted, "z", 1e-8)


if __name__ == "__main__":
    unittest.main()
