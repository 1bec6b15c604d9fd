"""Fit's questions against geometry worked by hand, shapely, and the identities that any answer must keep."""

import itertools
import math
import random
from typing import Any

from shapely.geometry import Point, Polygon

from tests.ask.case import Questions

WHEEL = {"rim_diameter_mm": 381, "width_mm": 152.4, "offset_mm": 35, "spoke_back_mm": 22, "barrel_inner_radius_mm": 170}
BOX = {"box": {"x_from_mm": -10, "x_to_mm": 60, "r_from_mm": 88, "r_to_mm": 165}}


class Clearance(Questions):
    def test_a_box_under_a_straight_barrel(self) -> None:
        got = self.ask("wheel_clearance", wheel=WHEEL, caliper=BOX, plus_minus={"wheel_r_mm": 0.6, "envelope_x_mm": 0.9})
        self.assertAlmostEqual(got["barrel"]["gap_mm"], 5.0)
        self.assertAlmostEqual(got["barrel"]["p5_mm"], 5 - 1.6448536269514722 * 0.6 / math.sqrt(3))
        self.assertAlmostEqual(got["spoke"]["gap_mm"], 12.0)
        self.assertAlmostEqual(got["spoke"]["p5_mm"], 12 - 1.6448536269514722 * 0.9 / math.sqrt(3))
        self.assertEqual((got["level"], got["least"], got["extra_move_mm"]), ("good", "barrel", 0.0))

    def test_a_long_caliper_stands_higher_at_its_ends(self) -> None:
        long = {"box": {**BOX["box"], "half_length_mm": 60}}
        got = self.ask("wheel_clearance", wheel=WHEEL, caliper=long)
        self.assertAlmostEqual(got["barrel"]["gap_mm"], 170 - math.hypot(165, 60))
        self.assertEqual(got["level"], "danger")
        move = got["extra_move_mm"]
        self.assertGreaterEqual(170 - math.hypot(165 + move, 60), 3 - 1e-9)
        self.assertLess(170 - math.hypot(165 + move + 0.1, 60), 3)

    def test_gaps_are_shapely_s_distances(self) -> None:
        draw = random.Random(3)
        for _ in range(60):
            points = [
                (-15 + draw.uniform(-4, 4), 90),
                (-12, 150 + draw.uniform(-8, 8)),
                (55, 160 + draw.uniform(-8, 8)),
                (58, 92),
            ]
            profile = [(-22, 60), (-25 + draw.uniform(-2, 2), 150), (-18, 168), (40, 172 + draw.uniform(-3, 3)), (110, 176)]
            got = self.ask(
                "wheel_clearance", wheel={"profile": [{"x_mm": x, "r_mm": r} for x, r in profile]},
                caliper={"points": [{"x_mm": x, "r_mm": r} for x, r in points]},
            )  # fmt: skip
            room = Polygon([*profile, (110, 1e4), (1e4, 1e4), (1e4, 0), (-22, 0)])
            caliper = Polygon(points)
            if not room.contains(caliper):
                self.assertLess(min(got["barrel"]["gap_mm"], got["spoke"]["gap_mm"]), 1e-9)
                continue
            wall = min(caliper.distance(Polygon([a, b, b])) for a, b in itertools.pairwise(profile))
            self.assertAlmostEqual(min(got["barrel"]["gap_mm"], got["spoke"]["gap_mm"]), wall, places=9)
            at = got[got["least"]]["at"]
            self.assertLess(caliper.exterior.distance(Point(at["x_mm"], at["r_mm"])), 1e-9)

    def test_a_spacer_moves_the_wheel_out_and_takes_thread(self) -> None:
        stud = {"length_mm": 42, "diameter_mm": 12, "pitch_mm": 1.5, "seat_mm": 14}
        near = {"box": {**BOX["box"], "x_from_mm": -20.5}}
        got = self.ask("wheel_clearance", wheel=WHEEL, caliper=near, stud=stud)
        self.assertAlmostEqual(got["spoke"]["gap_mm"], 1.5)
        self.assertEqual(got["extra_spacer_mm"], 1.5)
        self.assertEqual(got["stud"]["greatest_spacer_mm"], 42 - 14 - 12)
        moved = self.ask("wheel_clearance", wheel=WHEEL, caliper=near, stud=stud, stack={"spacer_mm": 17})
        self.assertEqual((moved["stud"]["level"], moved["level"]), ("danger", "danger"))

    def test_weights_stand_out_of_the_barrel_where_they_are_stuck(self) -> None:
        got = self.ask("wheel_clearance", wheel=WHEEL, caliper=BOX, weights={"x_from_mm": 20, "x_to_mm": 40})
        self.assertAlmostEqual(got["weights"]["gap_mm"], 170 - 4 - 165)  # 4 mm thick where nothing is said
        self.assertEqual((got["weights"]["level"], got["least"]), ("caution", "weights"))
        thin = self.ask(
            "wheel_clearance", wheel=WHEEL, caliper=BOX, weights={"x_from_mm": 20, "x_to_mm": 40, "thickness_mm": 1.5}
        )
        self.assertAlmostEqual(thin["weights"]["gap_mm"], 3.5)
        beside = self.ask("wheel_clearance", wheel=WHEEL, caliper=BOX, weights={"x_from_mm": 90, "x_to_mm": 100})
        self.assertAlmostEqual(beside["weights"]["gap_mm"], math.hypot(90 - 60, 1))
        for weights, place in (({"x_from_mm": 300, "x_to_mm": 320}, "x_from_mm"), ({"x_from_mm": 40, "x_to_mm": 40}, "x_to_mm")):
            self.refused(f"weights.{place}", "wheel_clearance", wheel=WHEEL, caliper=BOX, weights=weights)
        self.refused("wheel.rim_diameter_mm", "wheel_clearance", wheel={"rim_diameter_mm": 41, "width_mm": 150, "offset_mm": 0, "spoke_back_mm": 20}, caliper=BOX)  # fmt: skip

    def test_what_is_bad_is_named_by_its_place(self) -> None:
        self.refused("wheel.width_mm", "wheel_clearance", wheel={**WHEEL, "width_mm": 1, "offset_mm": -60}, caliper=BOX)
        self.refused("rotor.diameter_mm", "wheel_clearance", wheel=WHEEL, caliper={**BOX, "bridge_radius_mm": 144})
        self.refused("limits.hub_mm", "wheel_clearance", wheel=WHEEL, caliper=BOX, limits={"hub_mm": 3})
        self.refused("caliper.box.r_to_mm", "wheel_clearance", wheel=WHEEL, caliper={"box": {**BOX["box"], "r_to_mm": 80}})
        self.refused("wheel.profile", "wheel_clearance", wheel={}, caliper=BOX)


class Joints(Questions):
    def end(self, family: str, role: str, thread: str, **more: Any) -> dict[str, Any]:
        return {"family": family, "role": role, "thread": thread, **more}

    def test_each_reason_in_its_order(self) -> None:
        nut, port = self.end("inverted_45_double", "line", "3/8-24"), self.end("inverted_45_double", "port", "3/8-24")
        bubble = self.end("bubble", "port", "M10x1")
        cases = [
            (nut, port, "match", "sealed_by_seat"), (nut, None, "open_port", "leaks"),
            ({**nut, "material": "copper"}, port, "material_refused", "refused"), (nut, nut, "same_gender", "will_not_start"),
            (nut, self.end("npt", "port", "1/8-27 NPT"), "taper_with_straight", "jams_then_leaks"),
            (nut, bubble, "male_too_small", "starts_then_strips"),
            (self.end("bubble", "line", "M10 x 1"), port, "male_too_big", "will_not_start"),
            (nut, self.end("bubble", "port", "3/8-24"), "seat_differs", "screws_in_then_weeps"),
            (self.end("banjo", "bolt", "M10x1"), self.end("banjo", "port", "M10x1.25"), "pitch_differs", "binds_after_turns"),
            (self.end("banjo", "bolt", "M10x1"), bubble, "washer_has_no_seat", "screws_in_then_weeps"),
            (self.end("banjo", "bolt", "M10x1", washers=1), self.end("banjo", "port", "M10x1"), "washers_missing", "weeps"),
            (self.end("orb", "fitting", "3/8-24"), self.end("orb", "port", "3/8-24"), "match", "sealed_by_ring"),
            ({"family": "orb", "role": "port"}, None, "not_known", "not_known"),
        ]  # fmt: skip
        for a, b, reason, effect in cases:
            got = self.ask("joint_match", a=a, b=b)
            self.assertEqual((got["reason"], got["effect"], got["match"]), (reason, effect, reason == "match"), (a, b))

    def test_mends(self) -> None:
        nut = self.end("inverted_45_double", "line", "3/8-24", tube_mm=4.76)
        got = self.ask("joint_match", a=nut, b=self.end("bubble", "port", "M10x1", on="hose"))
        self.assertEqual(got["mends"][0], {"mend": "reflare", "end": "a", "family": "bubble", "thread": "M10x1", "sleeve": False})
        self.assertEqual([m["mend"] for m in got["mends"]], ["reflare", "adapter", "other_hose"])
        an = self.ask("joint_match", a=nut, b=self.end("an_37", "fitting", "3/8-24"))
        self.assertTrue(an["mends"][0]["sleeve"])
        banjo = self.end("banjo", "bolt", "M10x1"), self.end("banjo", "port", "M10x1", washers=1)
        short = self.ask("joint_match", a=banjo[0], b=banjo[1])
        self.assertEqual(short["mends"], [{"mend": "washers", "count": 1, "thread": "M10x1"}])

    def test_a_fitting_is_told_from_its_thread_over_the_crests(self) -> None:
        got = self.ask("joint_match", measured={"gender": "male", "over_crest_mm": 9.9})
        names = {c["thread"] for c in got["candidates"]}
        self.assertEqual(names, {"M10x1", "M10x1.25", "M10x1.5", "1/8-27 NPT"})
        self.assertIn("pitch", got["tell_apart"])
        self.assertIn("seat", got["tell_apart"])
        known = self.ask("joint_match", measured={"gender": "male", "over_crest_mm": 9.9, "pitch_mm": 1, "seen": "bulb"})
        self.assertEqual({c["family"] for c in known["candidates"]}, {"bubble", "convex_male"})

    def test_bad_ends(self) -> None:
        self.refused("a", "joint_match")
        self.refused("a.thread", "joint_match", a=self.end("orb", "port", "half inch"))
        self.refused("b.role", "joint_match", a=None, b=self.end("orb", "line", "3/8-24"))


class LinesAndHoses(Questions):
    def test_a_line_through_points_is_as_long_as_its_arcs(self) -> None:
        tube = {"outer_mm": 4.76, "points_mm": [[0, 0, 0], [300, 0, 0], [300, 200, 0]], "radius_mm": 20}
        got = self.ask("line_length", tubes=[tube], stock=[{"length_mm": 600, "outer_mm": 4.75}])
        self.assertAlmostEqual(got["tubes"][0]["developed_mm"], 280 + 180 + math.pi / 2 * 20)
        self.assertEqual(got["tubes"][0]["tag"], "line 1 | 4.76 mm steel | cut 492 mm | none to none")
        self.assertAlmostEqual(got["total_left_mm"], 600 - got["total_cut_mm"] - 1)
        self.refused("tubes.0.points_mm.1", "line_length", tubes=[{**tube, "radius_mm": 400}])
        self.refused("tubes.0.parts.1.straight_mm", "line_length", tubes=[{"outer_mm": 5, "parts": [{"straight_mm": 1}, {}]}])

    def test_stock_holds_what_is_cut_from_it(self) -> None:
        draw = random.Random(5)
        tubes = [{"name": str(k), "outer_mm": 4.76, "parts": [{"straight_mm": draw.randint(100, 900)}]} for k in range(12)]
        got = self.ask("line_length", tubes=tubes, stock=[{"length_mm": 1000, "outer_mm": 4.76, "count": 5}])
        cuts = {t["name"]: t["cut_mm"] for t in got["tubes"]}
        for piece in got["pieces"]:
            used = sum(cuts[name] for name in piece["lines"])
            self.assertAlmostEqual(piece["left_mm"], max(0.0, 1000 - used - len(piece["lines"])))
        self.assertEqual(sorted([n for p in got["pieces"] for n in p["lines"]] + got["unplaced"]), sorted(cuts))

    def test_a_hose_on_its_arc(self) -> None:
        got = self.ask("hose_reach", droop_mm=300, lock_mm=310, bump_mm=200, hose_mm=340, lengths_mm=[320, 340, 360])
        half = math.radians(got["turn_at_bump_deg"]) / 2
        self.assertAlmostEqual(2 * got["bend_radius_at_bump_mm"] * math.sin(half), 200, places=9)
        self.assertAlmostEqual(got["bend_radius_at_bump_mm"] * 2 * half, 340, places=9)
        self.assertAlmostEqual(got["least_mm"], 310 * 1.04 + 10)
        self.assertEqual((got["verdict"], got["choose_mm"]), ("fits", 340))
        self.refused("hose_mm", "hose_reach", droop_mm=300, lock_mm=310, bump_mm=200, ends_mm=[30, 40], hose_mm=60)


class Plates(Questions):
    def test_edges_and_webs(self) -> None:
        ring = {"kind": "circle", "holes": 4, "bolt_circle_mm": 100, "hole_mm": 10}
        got = self.ask("plate", old=ring, outline={"kind": "circle", "diameter_mm": 130}, bore={"diameter_mm": 40})
        self.assertEqual([h["edge_mm"] for h in got["holes"][:4]], [15.0] * 4)
        self.assertAlmostEqual(got["least_web"]["web_mm"], 50 - 25)
        self.assertEqual((got["level"], got["corner_mm"]), ("good", 65))
        near = self.ask("plate", old=ring, new={"kind": "points", "points_mm": [[50.03, 0], [38, 0]], "hole_mm": 12})
        self.assertEqual(near["shared"], [["old_1", "new_1"]])
        self.assertEqual(near["holes"][0]["diameter_mm"], 12)
        self.assertAlmostEqual(near["least_web"]["web_mm"], 12 - 12)
        self.assertEqual(near["webs_below"][0]["level"], "caution")

    def test_a_rectangle_s_edges_and_rounded_corners(self) -> None:
        hole = {"kind": "points", "points_mm": [[30, 15], [-30, 0]], "hole_mm": 8}
        sheet = {"kind": "rectangle", "width_mm": 100, "height_mm": 60, "centre_mm": [5, 0], "corner_mm": 12}
        got = self.ask("plate", old=hole, outline=sheet)
        # from the centre of a hole; in the corner's own square the edge is its arc
        self.assertAlmostEqual(got["holes"][0]["edge_mm"], min(55 - 30, 30 - 15))
        self.assertAlmostEqual(got["holes"][1]["edge_mm"], 45 - 30)
        near = self.ask("plate", old={**hole, "points_mm": [[50, 25]]}, outline=sheet)
        self.assertAlmostEqual(near["holes"][0]["edge_mm"], 12 - math.hypot(50 - 43, 25 - 18))
        round_ = self.ask("plate", old=hole, outline={"kind": "circle", "diameter_mm": 100, "centre_mm": [0, 10]})
        self.assertAlmostEqual(round_["holes"][0]["edge_mm"], 50 - math.hypot(30, 5))
        self.refused("outline.corner_mm", "plate", old=hole, outline={**sheet, "corner_mm": 31})
        self.assertEqual(self.ask("plate", old=hole, outline={"kind": "auto"})["holes"], self.ask("plate", old=hole)["holes"])

    def test_thread_in_the_plate(self) -> None:
        pair = {"kind": "pair", "spacing_mm": 60, "hole_mm": 8, "tapped": True}
        got = self.ask("plate", old=pair, thickness_mm=10, material="aluminium")
        self.assertEqual((got["holes"][0]["thread_needed_mm"], got["level"]), (12.0, "caution"))


class DonorsAndParts(Questions):
    def test_no_second_redrill_and_impossible_last(self) -> None:
        needs = {"diameter_mm": 280, "bolt_circle_mm": 108, "holes": 4, "greatest_diameter_mm": 290}
        parts = [
            {"name": "big", "diameter_mm": 300, "bolt_circle_mm": 108, "holes": 4}, {"name": "five", "diameter_mm": 280,
             "bolt_circle_mm": 112, "holes": 5}, {"name": "blank", "diameter_mm": 280},
        ]  # fmt: skip
        ranked = self.ask("donor_rank", part="rotor", needs=needs, parts=parts)["ranked"]
        self.assertEqual([r["name"] for r in ranked], ["five", "blank", "big"])
        self.assertEqual([m["code"] for m in ranked[0]["make"]], ["redrill"])
        self.assertEqual(ranked[1]["unknown"], ["bolt_circle_mm", "holes"])
        self.assertEqual(ranked[2]["make"], [{"code": "too_big", "class": "impossible", "value_mm": 10.0}])

    def test_what_is_missing(self) -> None:
        got = self.ask(
            "still_missing", joints=[{"family": "banjo", "thread": "M10 x 1", "count": 2}, {"family": "orb", "thread": "3/8-24"}],
            fluid={"system_cm3": 100, "flush": False}, shelf=[{"part": "crush washer M10x1", "count": 3}],
        )  # fmt: skip
        self.assertEqual(
            got["sentence"], "Still missing: crush washer M10x1 (1), O-ring 3/8-24 (1), brake fluid DOT 4, litre (0.25)."
        )
        self.assertEqual(self.ask("still_missing")["sentence"], "Nothing is missing.")
        self.refused("planned", "still_missing", today="2026-01-01", planned="soon")


class Parking(Questions):
    def test_a_wheel_s_clamp_and_the_grade_it_holds(self) -> None:
        vehicle = {"mass_kg": 1000, "front_share": 0.5, "cg_height_mm": 500, "wheelbase_mm": 2500, "grip": 0.8}
        actuator = {"kind": "clamp", "clamp_n": 2500, "friction": 0.4, "effective_radius_mm": 100}
        got = self.ask("parking_brake", actuator=actuator, vehicle=vehicle, rolling_radius_mm=300)
        self.assertAlmostEqual(got["torque_nm"], 2 * 2 * 0.4 * 2500 * 0.1)
        share = 400 / (0.3 * 1000 * 9.80665)
        self.assertAlmostEqual(got["torque_grade"], math.tan(math.asin(share)))
        self.assertAlmostEqual(got["decel_alone_g"], share)
        self.assertAlmostEqual(got["grip_grade_nose_up"], 0.4 / (1 - 0.8 * 0.2))
        self.assertEqual((got["pull_needed_n"], got["level"]), (None, "danger"))
        shoes = {"kind": "shoes", "lever_ratio": 4, "shoes": "duo_servo", "friction": 0.9, "drum_diameter_mm": 180}
        self.refused(
            "actuator.friction",
            "parking_brake",
            control={"lever_ratio": 6},
            actuator=shoes,
            vehicle=vehicle,
            rolling_radius_mm=300,
        )
