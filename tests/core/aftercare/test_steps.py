"""The library of steps: what every technology brings, and what stands on a sheet here alone."""

import unittest
from types import SimpleNamespace

from tests.core.aftercare.test_job import ITEMS, job
from tests.making import home, settings, water
from zesty_glass.core.aftercare.disinfecting import Plumbing
from zesty_glass.core.aftercare.steps import line_steps, renewed, sheet_of, sheets
from zesty_glass.core.aftercare.templates import About
from zesty_glass.core.costing.falling import interval_months
from zesty_glass.core.home import Source
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice


def line(*codes, h):
    option = Option(id="o", name="The line", stages=tuple(StageChoice(item=c) for c in codes))
    return walk(option, ITEMS, water(hardness=340, tds=450), None, h, settings())


def made(*codes, **about):
    h = home(drain=True, socket=True, **about)
    return {s.key.split(":")[0]: s for s in sheets(line(*codes, h=h), h, Plumbing())}


def text(sheet):
    return " ".join(x.text for x in sheet.steps)


class EveryTechnology(unittest.TestCase):
    def test_whatever_is_sold_has_steps_to_fit_it(self):
        for code, item in ITEMS.items():
            if item.kind in ("system", "bypass"):
                continue
            own = [k for k in made(code) if k not in ("pipe", "disinfect")]
            with self.subTest(code):
                self.assertTrue(own or item.code == "SD-50", item.name)

    def test_every_part_that_falls_due_finds_its_steps(self):
        for code, item in ITEMS.items():
            if item.kind == "system":
                continue
            h = home(drain=True, socket=True)
            one = line(code, h=h)
            changed = {p for s in sheets(one, h, Plumbing()) for p in s.parts}
            due = {d.kind for s in one.stages for d in s.dues} - {"part", "service", "test"}
            with self.subTest(code):
                self.assertLessEqual(due, changed)

    def test_resin_is_renewed_by_one_sheet_and_cleaned_by_another(self):
        about = made("SO-15")
        self.assertEqual(about["rebed"].parts, ("media", "resin"))
        self.assertEqual(about["resin"].parts, ())

    def test_a_valves_seals_have_steps_of_their_own(self):
        self.assertEqual(made("SO-15")["seals"].tools[0], "Valve seals and piston")
        self.assertNotIn("seals", made("CB-15"))

    def test_a_feed_of_soda_ash_is_no_bed(self):
        about = made("AC-FD")
        self.assertIn("dose_start", about)
        self.assertNotIn("valve", about)
        self.assertIn("valve", made("AC-U10"))


class Here(unittest.TestCase):
    def test_the_first_flush_is_what_the_catalogue_says_of_the_part(self):
        self.assertIn("Flush 112 gal", text(made("CB-15")["carbon_start"]))
        conditioner = made("SF-12")  # a bed of 60 gal, and a pre-filter of 5
        self.assertIn("Flush 60 gal", text(conditioner["bed_start"]))
        self.assertIn("Flush 5 gal", text(conditioner["cartridge"]))

    def test_parts_stand_before_the_tools(self):
        self.assertEqual(
            made("SD-20B")["cartridge"].tools[:2], ("5 µm big cartridge", "housing wrench")
        )
        self.assertEqual(made("UV-12H")["lamp"].tools[0], "Lamp")
        self.assertNotIn("Ballast", " ".join(made("UV-12H")["lamp"].tools))
        self.assertEqual(made("SO-15")["pipe"].tools[0], "pipe cutter")

    def test_else_what_is_usual(self):
        self.assertIn("at least 10 gal", text(made("FE-A10")["rebed"]))

    def test_the_most_that_its_parts_say_and_less_at_a_tap(self):
        def at(scope, *flushes):
            dues = [SimpleNamespace(kind="filter", flush_gal=f) for f in flushes]
            stage = SimpleNamespace(scope=scope, dues=dues)
            return About(line=None, home=None, plumbing=Plumbing(), stage=stage)

        self.assertEqual(at("house", 3.0, 8.0, None).flush_gal(("filter",)), 8.0)
        self.assertEqual(at("house", 3.0).flush_gal(("lamp",)), 10.0)
        self.assertEqual(at("tap", None).flush_gal(("filter",)), 2.0)

    def test_a_bed_is_topped_up_by_the_bag(self):
        h = home(drain=True)
        option = Option(id="o", name="n", stages=(StageChoice(item="AC-U15"),))
        acid = water(ph=6.2, alkalinity=40, hardness=50)
        one = walk(option, ITEMS, acid, None, h, settings())
        (due,) = (d for d in one.stages[0].dues if d.kind == "media")
        sheet = next(s for s in sheets(one, h, Plumbing()) if s.key.startswith("media"))
        lb_year = next(f.number for f in one.stages[0].figures if f.id == "media")
        lb = lb_year * interval_months(due) / 12
        self.assertIn(f"about {lb:.0f} lb, {-(-lb // 50):.0f} bag", sheet.tools[0])
        self.assertIn("of 50 lb; thread wiped", text(sheet))

    def test_a_jumper_where_the_pipe_is_or_may_be_of_metal(self):
        for pipe, bonded in (("copper", True), ("", True), ("PEX", False)):
            sheet = made("SO-15", pipe_material=pipe)["pipe"]
            with self.subTest(pipe):
                self.assertEqual("jumper" in text(sheet), bonded)
                self.assertEqual("electrician" in sheet.caution, bonded)

    def test_a_drain_line_where_something_drains(self):
        self.assertIn("air gap", text(made("SO-15")["pipe"]))
        self.assertNotIn("air gap", text(made("CB-15")["pipe"]))

    def test_a_feed_pump_is_tied_to_the_wells(self):
        self.assertIn("well’s pump", text(made("CL-1", source=Source.WELL_DRILLED)["feed_start"]))
        self.assertNotIn("well’s pump", text(made("CL-1", source=Source.CITY)["feed_start"]))

    def test_bleach_ahead_of_a_lamp_for_the_house_not_of_one_at_the_tap(self):
        self.assertIn("disinfect", made("UV-12H"))
        small = made("UV-T")
        self.assertNotIn("disinfect", small)
        self.assertNotIn("whole plumbing", text(small["uv_start"]))

    def test_in_the_order_of_the_work(self):
        h = home(source=Source.WELL_DRILLED, drain=True, freezing=True)
        keys = [s.key.split(":")[0] for s in sheets(line("CL-1", "CC-15", h=h), h, Plumbing())]
        self.assertEqual(
            keys,
            ["pipe", "feed_start", "carbon_start", "disinfect", "rebed", "winter", "spring"],
        )


class WhichSheet(unittest.TestCase):
    def test_a_part_is_changed_by_the_sheet_of_its_stage_or_of_the_set_at_the_tap(self):
        h = home(drain=True, socket=True)
        told = sheets(line("SD-20B", "CB-15", "SO-15", "DT-1", h=h), h, Plumbing())
        for part, kind, key in (
            ("0:SD-20B:SD-20B-C", "filter", "cartridge:0:SD-20B"),
            ("2:CB-15:CB-15-M", "media", "rebed:2:CB-15"),
            ("1:SO-15:SO-15-R", "resin", "rebed:1:SO-15"),
            ("4:CB-T:CB-T-C", "filter", "tap_set:5:RO-75M"),
        ):
            with self.subTest(part):
                self.assertEqual(getattr(sheet_of(told, part, kind), "key", None), key)
        self.assertIsNone(sheet_of(told, "1:SO-15:SO-15-V", "test"))


class BeforeItIsSold(unittest.TestCase):
    def test_a_line_has_the_steps_that_its_job_will_have(self):
        h = home(source=Source.WELL_DRILLED, drain=True, socket=True)
        one = line_steps(line("SD-20B", "UV-12H", h=h), h)
        self.assertEqual(one.sheets, job("SD-20B", "UV-12H", h=h).sheets)
        self.assertEqual((one.name, one.home), ("The line", h.name))


class Renewed(unittest.TestCase):
    def test_quantities_are_new_and_lines_that_are_ticked_stay(self):
        h = home(drain=True, socket=True)
        one = line("UV-12H", h=h)
        kept = sheets(one, h, Plumbing())
        anew = sheets(one, h, Plumbing(heater_gal=200))
        self.assertEqual(renewed(kept, anew), anew)
        self.assertNotEqual(kept, anew)

    def test_a_sheet_of_another_length_or_name_is_left(self):
        copper, plastic = (home(drain=True, pipe_material=p) for p in ("copper", "PEX"))
        kept = sheets(line("SO-15", h=copper), copper, Plumbing())
        anew = sheets(line("SO-15", h=plastic), plastic, Plumbing())
        self.assertEqual(renewed(kept, anew)[0], kept[0])
        self.assertEqual(renewed(kept, ()), kept)
