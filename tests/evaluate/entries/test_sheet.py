"""The sheet of Measure: what applies, what stands in, both units, and what each answer still needs."""

import typing
import unittest
from typing import Any
from unittest import mock

from kobrix.core.constants import ASSUMED, STAND_INS
from kobrix.core.errors import BadEntry, BadFile, Impossible, NotFound
from kobrix.evaluate.entries.helpers import help_with
from kobrix.evaluate.entries.shapes import Sheet
from kobrix.evaluate.entries.sheet import measure_sheet, measured
from kobrix.evaluate.rotor_heat import rotors_on
from kobrix.evaluate.sketch import sketch
from kobrix.fileformat import files, layouts
from kobrix.fileformat.job import Job
from kobrix.fileformat.layouts import new_job
from kobrix.fileformat.paths import set_at
from kobrix.fileformat.quantities import inch_fraction, other_unit
from kobrix.stages.common import StoredJob
from kobrix.stages.measure.service import standing

from tests.cases import conforms, demo_document, demo_job

Doc = dict[str, typing.Any]


def entries(sheet: Any) -> dict[str, Doc]:
    """Every entry of a sheet by its path."""
    return {e["path"]: e for s in sheet["sections"] for g in s["groups"] for e in g["entries"]}


class OfItsKind(unittest.TestCase):
    def test_only_a_pilot_is_asked_how_hard_he_would_press(self) -> None:
        for layout in typing.get_args(layouts.Layout):
            asked = {path.rpartition(".")[2] for path in entries(measure_sheet(new_job("n", layout), "as found"))}
            self.assertEqual("force_limit_n" in asked, layout.startswith("aircraft"), layout)

    def test_only_an_aircraft_with_brakes_in_front_alone_is_drawn_with_a_tail_wheel(self) -> None:
        drawn = {layout: sketch(new_job("n", layout)) for layout in typing.get_args(layouts.Layout)}
        self.assertEqual([layout for layout, own in drawn.items() if own["tail"]], ["aircraft_tail_wheel"])
        kinds = {layout: own["kind"] for layout, own in drawn.items()}
        self.assertEqual({k: kinds[k] for k in ("motorcycle", "aircraft_tail_wheel", "trials_car")},
                         {"motorcycle": "motorcycle", "aircraft_tail_wheel": "aircraft", "trials_car": "car"})  # fmt: skip
        known = sketch(demo_job())
        self.assertEqual((known["wheelbase_mm"], known["front_share"], known["tail"]), (2480.0, 0.49, False))

    def test_each_lever_of_a_trials_car_holds_one_wheel(self) -> None:
        (system,) = new_job("n", "trials_car").as_found.systems
        self.assertEqual([[f.wheels for f in lever.feeds or []] for _, lever in system.seconds], [[1], [1]])

    def test_the_heat_of_an_axle_goes_into_its_rotors_and_drums(self) -> None:
        document = demo_document()
        document["as_found"]["systems"][0]["stations"][0]["brake"]["rotors_per_wheel"] = 2
        found = files.check(Job, document).setup("as found")
        self.assertEqual([rotors_on(found, axle) for axle in ("front", "rear")], [4, 2])


class TheLine(unittest.TestCase):
    def test_what_the_line_needs_is_marked_so_on_every_layout_and_kind_of_brake(self) -> None:
        jobs = [(layout, new_job("n", layout)) for layout in typing.get_args(layouts.Layout)]
        drums = new_job("n", "car_front_rear").model_dump(mode="json", exclude_unset=True)
        drums["as_found"]["systems"][0]["stations"][1]["brake"] = {"kind": "drum"}
        for name, job in [*jobs, ("drums", files.check(Job, drums))]:
            with self.subTest(name):
                sheet = measure_sheet(job, "as found")
                line = {e["path"] for s in sheet["sections"] for g in s["groups"] for e in g["entries"] if e["line"]}
                self.assertEqual(line, {m["path"] for m in sheet["needs"]["decel"]})

    def test_a_car_needs_twelve_entries_once_the_usual_values_stand_in_and_the_tyres_are_the_same(self) -> None:
        sheet = measure_sheet(new_job("n", "car_front_rear"), "as found")
        line = [e for s in sheet["sections"] for g in s["groups"] for e in g["entries"] if e["line"]]
        self.assertEqual((len(line), sum(e["stand_in"] is not None for e in line)), (21, 8))
        self.assertEqual(sum(e["key"] == "tyre" for e in line), 2)


class OfTheDemo(unittest.TestCase):
    def setUp(self) -> None:
        self.sheet = measure_sheet(demo_job(), "as found")
        self.entries = entries(self.sheet)

    def test_it_has_the_shape_that_is_declared(self) -> None:
        for name in ("as found", "plan A", "plan B"):
            conforms(Sheet, measure_sheet(demo_job(), name))

    def test_an_entry_is_as_typed_with_the_other_unit_beside_it(self) -> None:
        bore = self.entries["as_found.systems.0.cylinder.bore_mm"]
        self.assertEqual((bore["text"], bore["other"], bore["state"]), ("7/8 in", "22.22 mm", "measured"))
        mass = self.entries["vehicle.load_states.0.mass_kg"]
        self.assertEqual((mass["text"], mass["other"]), ("1,310 kg", "2888 lb"))

    def test_what_was_left_out_is_the_table_s_own_default_marked_as_assumed(self) -> None:
        lost = self.entries["as_found.systems.0.cylinder.lost_primary_mm"]
        self.assertEqual((lost["state"], lost["text"]), ("assumed", ""))
        self.assertAlmostEqual(lost["default"]["value"], ASSUMED["cylinder.lost"].value * 1e3, places=12)
        give = self.entries["as_found.systems.0.stations.0.brake.caliper_give_um_per_mpa"]
        self.assertAlmostEqual(give["default"]["value"], 12.0)  # a floating caliper's

    def test_the_parts_of_a_plan_stand_at_their_own_place(self) -> None:
        plan = entries(measure_sheet(demo_job(), "plan A"))
        self.assertIn("plans.0.systems.0.cylinder.bore_mm", plan)
        self.assertIn("vehicle.wheelbase_mm", plan)
        with self.assertRaises(NotFound):
            measure_sheet(demo_job(), "plan Z")

    def test_a_linkage_is_put_in_in_line_with_the_bore_and_taken_out(self) -> None:
        document = demo_document()
        choice = entries(measure_sheet(demo_job(), "plan A"))["plans.0.systems.0.control.linkage"]
        self.assertEqual((choice["text"], choice["more"]), ("straight", True))
        straight, linked = (c["edits"][0] for c in choice["choices"])
        self.assertNotIn("value", straight)
        self.assertEqual(linked["value"]["bore_point_mm"], [150, -48])
        document["plans"][0]["systems"][0]["control"]["linkage"] = linked["value"]
        job = files.check(Job, document)
        own = measure_sheet(job, "plan A")
        conforms(Sheet, own)
        section = next(s for s in own["sections"] if s["kind"] == "linkage")
        self.assertEqual(section["key"], "linkage.0")
        below = "plans.0.systems.0.control.linkage."
        self.assertEqual(entries(own)[f"{below}bore_point_mm.1"]["value"], -48)
        self.assertEqual(entries(own)[f"{below}rod_mm"]["other"], "5.91 in")
        turns = {c["value"]: c["edits"] for c in entries(own)[f"{below}sense"]["choices"]}
        self.assertEqual(turns, {str(v): [set_at(f"{below}sense", v)] for v in (1, -1)})

    def test_what_is_missing_is_named_with_the_answer_it_is_for(self) -> None:
        document = demo_document()
        del document["as_found"]["systems"][0]["cylinder"]["bore_mm"]
        del document["as_found"]["systems"][0]["control"]["available_travel_mm"]
        sheet = measure_sheet(files.check(Job, document), "as found")
        self.assertEqual([m["label"] for m in sheet["needs"]["decel"]], ["Cylinder: bore"])
        self.assertEqual([m["label"] for m in sheet["needs"]["travel"]], ["Pedal: travel to the stop"])
        self.assertEqual(entries(sheet)["as_found.systems.0.cylinder.bore_mm"]["needed"], "decel")

    def test_how_far_measure_is(self) -> None:
        document = demo_document()
        begun = measured(files.check(Job, document))
        self.assertLess(begun["done"], begun["total"])
        words = f"{begun['done']} of {begun['total']}"
        self.assertEqual(standing(StoredJob(files.check(Job, document), 0)), {"state": "begun", "words": words})
        for done, unsure, state in ((0, 0, "empty"), (7, 0, "ready"), (7, 2, "doubt")):
            whole = {"done": done, "total": 7, "doubted": unsure}
            with mock.patch("kobrix.stages.measure.service.measured", return_value=whole):
                self.assertEqual(standing(StoredJob(files.check(Job, document), 0))["state"], state)

    def test_a_tolerance_gives_a_range_and_a_senseless_one_is_refused(self) -> None:
        document = demo_document()
        path = "as_found.systems.0.control.pivot_to_pad_mm"
        document["tolerances"] = {path: "± 1/16 in"}
        own = entries(measure_sheet(files.check(Job, document), "as found"))[path]["plus_minus"]
        self.assertAlmostEqual(own["least"], 292 - 25.4 / 16)
        self.assertAlmostEqual(own["most"], 292 + 25.4 / 16)
        for text in ("± 0", "± 5 psi", "about that"):
            with self.assertRaises(BadFile):
                files.check(Job, {**document, "tolerances": {path: text}})

    def test_a_choice_carries_the_edits_that_keep_what_the_two_have_in_common(self) -> None:
        kind = next(e for e in self.entries.values() if e["label"] == "cylinder")
        twin = next(c for c in kind["choices"] if c["value"] == "twin")
        [edit] = twin["edits"]
        self.assertEqual(edit["value"]["front"], {"bore_mm": "7/8 in", "stroke_mm": 30})
        document = demo_document()
        document["as_found"]["systems"][0]["cylinder"] = edit["value"]
        self.assertEqual(files.check(Job, document).as_found.systems[0].cylinder.kind, "twin")
        drum = next(e for p, e in self.entries.items() if p == "as_found.systems.0.stations.0.brake" and e["key"] == "kind")
        changed = next(c for c in drum["choices"] if c["value"] == "drum")["edits"][0]["value"]
        self.assertEqual(changed, {"kind": "drum", "friction": {"cold": 0.38}})

    def test_what_follows_from_the_entries_is_said(self) -> None:
        said = {line["label"]: line["text"] for s in self.sheet["sections"] for line in s["derived"]}
        self.assertEqual(said["ratio from these"], "4.56 : 1")
        self.assertEqual(said["piston area, one side"], "18.10 cm²")
        self.assertEqual(said["185/60R15"], "603 mm across, rolls on 292.7 mm")


class Standing(unittest.TestCase):
    """A section is empty, begun, in doubt or ready; and so is the whole stage."""

    def sections(self, document: Doc) -> Doc:
        return {s["key"]: s for s in measure_sheet(files.check(Job, document), "as found")["sections"]}

    def test_what_was_said_not_to_be_known_leaves_a_section_in_doubt(self) -> None:
        document = demo_document()
        figures = [(s, e) for s in self.sections(document).values() if s["state"] == "ready"
                   for g in s["groups"] for e in g["entries"] if not e["more"] and e["value"] is not None]  # fmt: skip
        ready, entry = figures[0]
        before = measured(files.check(Job, document))
        document["assumed"] = [*document.get("assumed", []), entry["path"]]
        after = self.sections(document)[ready["key"]]
        self.assertEqual((after["state"], after["unsure"], after["done"]), ("doubt", 1, ready["done"]))
        self.assertEqual(measured(files.check(Job, document)), {**before, "doubted": before["doubted"] + 1})

    def test_a_part_that_is_not_fine_leaves_the_stage_in_doubt(self) -> None:
        document = demo_document()
        document["condition"] = []
        before = measured(files.check(Job, document))
        document["condition"] = [
            {"about": "hoses", "text": "new", "level": "fine"},
            {"about": "cylinder", "text": "pitted", "level": "renew"},
        ]
        self.assertEqual(measured(files.check(Job, document))["doubted"], before["doubted"] + 1)

    def test_an_empty_job_is_empty_and_becomes_begun(self) -> None:
        document = new_job("new", "car_front_rear").model_dump(exclude_unset=True)
        first = self.sections(document)["control.0"]
        self.assertEqual((first["state"], first["done"]), ("empty", 0))
        document["as_found"]["systems"][0]["control"]["pivot_to_pad_mm"] = "300 mm"
        self.assertEqual(self.sections(document)["control.0"]["state"], "begun")


class Empty(unittest.TestCase):
    def test_every_layout_begins_with_nothing_measured_and_gets_only_what_applies(self) -> None:
        for layout in typing.get_args(layouts.Layout):
            with self.subTest(layout=layout):
                sheet = measure_sheet(new_job("new", layout), "as found")
                conforms(Sheet, sheet)
                self.assertTrue(sheet["needs"]["decel"])
                kinds = [s["kind"] for s in sheet["sections"]]
                self.assertEqual("booster" in kinds, layout.startswith(("car", "trials")))
                controls = {"motorcycle": 2, "aircraft_nose_wheel": 2, "aircraft_tail_wheel": 2, "trials_car": 3}.get(layout, 1)
                self.assertEqual(kinds.count("control"), controls)
                self.assertTrue(all(m["section"] for m in (*sheet["needs"]["decel"], *sheet["needs"]["travel"])))

    def test_all_that_is_asked_for_is_enough(self) -> None:
        """Filling exactly what the sheet says is needed gives a push and a travel."""
        texts = {"mm": "30 mm", "kg": "900 kg", "": "0.5", "list": "36 mm"}
        own = {"pivot_to_pad_mm": "300 mm", "pivot_to_pin_mm": "60 mm", "available_travel_mm": "140 mm", "rotor_diameter_mm": "260 mm",
               "wheelbase_mm": "2400 mm", "cg_height_mm": "500 mm", "bore_mm": "7/8 in", "front.bore_mm": "5/8 in", "rear.bore_mm": "5/8 in",
               "friction.cold": "0.4"}  # fmt: skip
        for layout in typing.get_args(layouts.Layout):
            document = new_job("new", layout).model_dump(exclude_unset=True)
            for _ in range(3):
                sheet = measure_sheet(files.check(Job, document), "as found")
                known = entries(sheet)
                for missing in (*sheet["needs"]["decel"], *sheet["needs"]["travel"]):
                    entry = known[missing["path"]]
                    if entry["kind"] == "choice":
                        value: typing.Any = entry["choices"][-1]["value"]
                    elif entry["kind"] == "list":
                        value = [texts["list"]]
                    else:
                        value = "185/65R15" if entry["key"] == "tyre" else own.get(entry["key"], texts[entry["unit"]])
                    here: typing.Any = document
                    *steps, last = missing["path"].split(".")
                    for step in steps:
                        here = here[int(step)] if isinstance(here, list) else here.setdefault(step, {})
                    here[last] = value
            sheet = measure_sheet(files.check(Job, document), "as found")
            self.assertEqual((sheet["needs"]["decel"], sheet["needs"]["travel"]), ([], []), layout)


class BothUnits(unittest.TestCase):
    def test_fractions_as_on_a_tape(self) -> None:
        for mm, said in (
            (22.225, "7/8 in"),
            (292.0, "11 1/2 in"),
            (30.0, "1 3/16 in"),
            (25.4, "1 in"),
            (64.0, "2.52 in"),
            (0.71, "0.03 in"),
        ):
            self.assertEqual(inch_fraction(mm), said)

    def test_against_pint(self) -> None:
        import pint

        ureg: typing.Any = pint.UnitRegistry()
        for value, name, symbol, unit, text in ((1310.0, "mass_kg", "kg", "lb", "2888 lb"), (500.0, "force_n", "N", "lbf", "112.4 lbf"),
                                                (1000.0, "knee_kpa", "kPa", "psi", "145 psi"), (41.4, "volume_cm3", "cm³", "in**3", "2.526 in³")):  # fmt: skip
            plain = {"cm³": "cm**3"}.get(symbol, symbol)
            expected = ureg.Quantity(value, plain).to(unit).magnitude
            said = other_unit(value, name, symbol)
            self.assertEqual(said, text)
            self.assertAlmostEqual(float(said.split()[0]), expected, delta=max(0.5 if unit == "psi" else 0.0, 6e-4 * expected))
        self.assertEqual(other_unit(6205.28, "knee_kpa", "psi"), "6.21 MPa")


class Helping(unittest.TestCase):
    def test_four_scales(self) -> None:
        given = {"left_front_kg": "330", "right_front_kg": "312 kg", "left_rear_kg": "730 lb", "right_rear_kg": "337"}
        found = {e["key"]: e["text"] for e in help_with("corner_weights", given)["entries"]}
        rear = 730 * 0.45359237 + 337
        self.assertEqual(found["mass_kg"], f"{642 + rear:.1f} kg")
        self.assertAlmostEqual(float(found["front_share"]), 642 / (642 + rear), places=4)

    def test_a_lifted_axle(self) -> None:
        import math

        given = {"whole_mass_kg": "1310", "wheelbase_mm": "2480", "lift_mm": "20 in", "gain_kg": "30", "wheel_centre_mm": "293"}
        angle = math.asin(508 / 2480)  # moments about the axle that stays, by hand
        height = 293 + 2480 * 30 / (1310 * math.tan(angle))
        self.assertEqual(help_with("lifted_axle", given)["entries"], [{"key": "cg_height_mm", "text": f"{height:.0f} mm"}])
        with self.assertRaises(Impossible):
            help_with("lifted_axle", {**given, "lift_mm": "3 m"})

    def test_readings_of_the_pad(self) -> None:
        given = {"at_rest_mm": "180", "rod_moves_mm": "175", "at_stop_mm": "30"}
        found = help_with("pedal_positions", given)["entries"]
        self.assertEqual([e["text"] for e in found], ["5 mm", "150 mm"])
        with self.assertRaises(Impossible):
            help_with("pedal_positions", {**given, "rod_moves_mm": "190"})

    def test_edge_letters_are_the_middle_of_their_range_with_its_half_as_tolerance(self) -> None:
        found = help_with("pad_letters", {"letters": "fe"})  # SAE J866, from memory: F .35 to .45, E .25 to .35
        self.assertEqual([e["text"] for e in found["entries"]], ["0.4", "0.3"])
        self.assertEqual(found["plus_minus"], {"friction.cold": "0.05", "friction.hot": "0.05"})
        for letters in ("F", "FZ", "FFF", ""):
            with self.assertRaises(BadEntry):
                help_with("pad_letters", {"letters": letters})

    def test_nothing_read_and_no_such_helper(self) -> None:
        with self.assertRaisesRegex(BadEntry, "left front: nothing was given"):
            help_with("corner_weights", {})
        with self.assertRaises(NotFound):
            help_with("oracle", {})


class StandIns(unittest.TestCase):
    def test_each_lies_in_its_own_range_and_is_offered_somewhere(self) -> None:
        from kobrix.fileformat import field_catalog

        lists = [*field_catalog.CYLINDER.values(), *field_catalog.BRAKE.values(), field_catalog.VEHICLE, field_catalog.LOAD_STATE]
        used = {a.stand_in for asks in lists for a in asks if a.stand_in}
        self.assertEqual(used, set(STAND_INS))
        for key, known in STAND_INS.items():
            assert known.least is not None and known.most is not None
            self.assertTrue(known.least < known.value < known.most, key)


if __name__ == "__main__":
    unittest.main()
