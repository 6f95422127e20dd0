"""Where the answers of neutralizers, membranes and lamps turn, worked by hand."""

import unittest
from dataclasses import replace
from decimal import Decimal

from tests.core.treating.test_stage_edges import TOWN, figure, item, run, status
from tests.making import settings
from zesty_glass.core.evidence import Evidence, Level
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.items import Consumable, Effect
from zesty_glass.core.treating.stages.membrane_flow import MembraneFigures
from zesty_glass.core.treating.stages.neutraliser import NeutraliserFigures
from zesty_glass.core.treating.stages.neutraliser_media import media_lb_year
from zesty_glass.core.treating.stages.sediment import SedimentFigures
from zesty_glass.core.treating.stages.uv import UvFigures, flow_at


class Neutraliser(unittest.TestCase):
    def of(self, style="upflow", **more):
        values = {"ph": 6.3, "alkalinity": 40.0, "temperature": 12.0, "iron": 0.1, "tds": 90.0}
        values |= {k: more.pop(k) for k in list(more) if k in ("ph", "iron", "alkalinity")}
        base = {"style": style, "volume_ft3": 1.5, "bag_price": Decimal(30)}
        f = NeutraliserFigures(**{**base, **more})
        return run(item(f), values)

    def test_made_for_its_own_acid(self):
        for share, ph, said in (
            (0.0, 6.5, "met"),
            (0.0, 7.0, "warn"),
            (0.0, 5.9, "stop"),
            (0.3, 5.5, "met"),
            (0.3, 6.1, "warn"),
            (0.3, 4.9, "stop"),
        ):
            r = self.of(ph=ph, magnesia_share=share)
            self.assertEqual(status(r, "neutraliser.range"), said, (share, ph))

    def test_magnesia_may_overshoot(self):
        self.assertEqual(status(self.of(magnesia_share=0.3), "neutraliser.overshoot"), "warn")
        self.assertEqual(status(self.of(), "neutraliser.overshoot"), "")

    def test_an_upflow_bed_wants_little_iron(self):
        self.assertEqual(status(self.of(iron_max=0.3, iron=0.3), "neutraliser.iron"), "met")
        self.assertEqual(status(self.of(iron_max=0.3, iron=0.31), "neutraliser.iron"), "stop")
        wide = self.of(iron_max=0.3, iron=Range.of(0.2, 0.28, 0.36))
        self.assertEqual(status(wide, "neutraliser.iron"), "warn")
        self.assertEqual(status(self.of(iron=0.3), "neutraliser.iron"), "unknown")

    def test_media_by_stoichiometry(self):
        # 50 mg/L x 87,660 gal x 3.785 L / 453,592 mg = 36.6 lb
        self.assertAlmostEqual(media_lb_year(50.0, 87_660.0), 36.58, 2)

    def test_a_bed_that_loses_nothing_is_looked_at_in_ten_years(self):
        due = next(d for d in self.of(ph=7.4).dues if d.kind == "media")
        self.assertEqual((due.months, due.price), (120.0, Decimal("0.00")))

    def test_iron_loosens_a_backwashing_bed_twice_as_often(self):
        base = {"style": "backwashing", "backwash_gpm": 5.0, "backwash_min": 10.0}
        few = self.of(iron=0.29, backwash_days=6.0, **base)
        often = self.of(iron=0.3, backwash_days=6.0, **base)
        self.assertAlmostEqual(few.drains[0].times_year, 365.25 / 6)
        self.assertAlmostEqual(often.drains[0].times_year, 365.25 / 3)

    def test_a_backwash_that_is_not_stated_is_asked(self):
        r = self.of("backwashing", backwash_gpm=5.0)
        self.assertEqual((status(r, "well.backwash"), r.drains), ("unknown", ()))

    def test_a_wide_ph_sizes_nothing_well(self):
        narrow = self.of(ph=Range.of(6.0, 6.3, 6.6))
        wide = self.of(ph=Range.of(5.9, 6.3, 6.6))
        self.assertEqual(status(narrow, "neutraliser.ph_meter"), "")
        self.assertEqual(status(wide, "neutraliser.ph_meter"), "warn")


class Membrane(unittest.TestCase):
    values = {
        "tds": 400.0,
        "temperature": 25.0,
        "ph": 7.2,
        "hardness": 100.0,
        "iron": 0.0,
        "manganese": 0.0,
        "chlorine_free": 0.0,
        "chlorine_total": 0.0,
    }

    def of(self, values=None, psi=(50.0, 55.0, 60.0), **more):
        figures = {"rated_gpd": 75.0, "rated_ratio": 3.0, "rejection": 0.94}
        figures |= {k: more.pop(k) for k in list(more) if k in MembraneFigures.__dataclass_fields__}
        thing = item(MembraneFigures(**figures), "tap", **more)
        return run(thing, {**self.values, **(values or {})}, psi, **TOWN)

    def test_forty_pounds_at_least_where_none_are_stated(self):
        self.assertEqual(status(self.of(psi=(40.0, 50.0, 60.0)), "pressure.least"), "met")
        self.assertEqual(status(self.of(psi=(39.9, 50.0, 60.0)), "pressure.least"), "stop")
        self.assertEqual(status(self.of(psi=None), "pressure.least"), "unknown")

    def test_what_is_not_measured_leaves_the_yield_open(self):
        bare = {k: v for k, v in self.values.items() if k != "temperature"}
        figures = MembraneFigures(rated_gpd=75.0, rated_ratio=3.0, rejection=0.94, efficiency=0.25)
        r = run(item(figures, "tap"), bare, **TOWN)
        self.assertEqual(status(r, "membrane.yield"), "unknown")
        # efficiency of 25 %: 3 gal to the drain for each drunk
        self.assertAlmostEqual(figure(r, "waste"), 3.0)

    def test_rejection_with_its_ends(self):
        # a bare rating: salt passes as rated times rated NDP / NDP here. 60 − 5 × 1.1507 = 54.246;
        # 400 mg/L at 55 psi 50.397, at 60 psi 55.397, at 50 psi 45.397
        r = self.of().outlet.range("tds")
        ends = [round(x, 1) for x in (r.low, r.best, r.high)]
        self.assertEqual(ends, [15.7, 25.8, 43.0])  # 16, 24 and 36 times these

    def test_a_certified_system_is_taken_as_certified(self):
        claim = Effect(
            analyte="tds",
            low=0.9,
            best=0.94,
            high=0.97,
            evidence=Evidence(level=Level.CERTIFIED, standard="NSF/ANSI 58"),
        )
        self.assertAlmostEqual(self.of(effects=(claim,)).outlet.range("tds").best, 24.0)

    def test_one_that_makes_nothing_drains_once(self):
        # 15 psi is less than the osmotic 20 of 2,000 mg/L: 75 × 3 × √(15 / 60) = 112.5 gal a day
        for kept in (True, False):
            r = self.of({"tds": 2000.0}, psi=(15.0, 15.0, 15.0), shut_off=kept, psi_min=10.0)
            (drain,) = r.drains
            self.assertAlmostEqual(drain.gal_year / 365.25, 112.5, 3)

    def test_the_harder_the_water_the_shorter_its_life(self):
        part = Consumable(
            code="m", name="Membrane", kind="membrane", price=Decimal(90), months=36.0
        )

        def life(gpg):
            r = self.of({"hardness": gpg * 17.118061}, consumables=(part,))
            return r.dues[0].life_factor

        self.assertEqual([life(g) for g in (9, 12, 24, 30)], [1.0, 0.67, 0.67, 0.4])

    def test_its_ph_window(self):
        for ph, said in ((3.0, "met"), (11.0, "met"), (11.1, "stop")):
            found = self.of({"ph": ph}, ph_min=3.0, ph_max=11.0)
            self.assertEqual(status(found, "membrane.ph"), said, ph)

    def test_hardness_shortens_its_life(self):
        from zesty_glass.core.treating.items import Consumable

        part = Consumable(
            code="m", name="Membrane", kind="membrane", price=Decimal(90), months=36.0
        )
        for hardness, factor in ((171.18, 1.0), (171.2, 0.67)):
            r = self.of({"hardness": hardness}, consumables=(part,))
            self.assertEqual(r.dues[0].life_factor, factor, hardness)
        untested = {k: v for k, v in self.values.items() if k != "hardness"}
        figures = MembraneFigures(rated_gpd=75.0, rated_ratio=3.0, rejection=0.94)
        r = run(item(figures, "tap", consumables=(part,)), untested, **TOWN)
        self.assertEqual(r.dues[0].life_factor, 0.75)

    def test_no_ratio_is_a_cartridge(self):
        r = self.of(rated_ratio=0.0)
        self.assertEqual((status(r, "membrane.concentrate"), r.drains), ("say", ()))

    def test_without_a_shut_off_it_drains_all_day(self):
        self.assertEqual(status(self.of(shut_off=False), "membrane.no_shutoff"), "warn")
        self.assertEqual(status(self.of(), "membrane.no_shutoff"), "")


class Lamp(unittest.TestCase):
    figures = UvFigures(
        device_class="A",
        monitored=True,
        table=((70.0, 4.0), (80.0, 8.0), (90.0, 12.0)),
        uvt_min=70.0,
        dose=40.0,
        lamp_length_in=20.0,
        flat=False,
        watts=40.0,
    )
    fine = item(SedimentFigures(style="cartridge", micron=5.0))
    clear = {
        "uvt": 90.0,
        "iron": 0.0,
        "manganese": 0.0,
        "hardness": 50.0,
        "tannin": 0.0,
        "turbidity": 0.0,
        "hydrogen_sulfide": 0.0,
    }

    def of(self, values=None, figures=None, ahead=None, **about):
        thing = item(figures or self.figures, headroom_in=10.0)
        behind = (self.fine,) if ahead is None else ahead
        return run(thing, {**self.clear, **(values or {})}, ahead=behind, **about)

    def test_straight_lines_through_its_table(self):
        for uvt, flow in ((70.0, 4.0), (75.0, 6.0), (85.0, 10.0), (95.0, 12.0), (69.9, None)):
            self.assertEqual(flow_at(self.figures, uvt), flow, uvt)

    def test_the_low_end_of_transmittance_decides(self):
        # two bathrooms: 9 gpm x 1.25 = 11.25; 12 at 90 %, 11.2 at 88 %
        self.assertEqual(status(self.of(), "uv.flow"), "met")
        self.assertEqual(status(self.of({"uvt": Range.of(88.0, 90.0, 92.0)}), "uv.flow"), "stop")
        self.assertEqual(status(self.of({"uvt": 69.0}), "uv.uvt_low"), "stop")

    def test_it_wants_five_microns_ahead(self):
        self.assertEqual(status(self.of(), "uv.prefilter"), "")
        coarse = (item(SedimentFigures(style="cartridge", micron=5.5)),)
        self.assertEqual(status(self.of(ahead=coarse), "uv.prefilter"), "stop")
        self.assertEqual(status(self.of(ahead=()), "uv.prefilter"), "stop")

    def test_room_above_to_draw_the_lamp(self):
        # 10 in for the unit and 20 in for the lamp
        self.assertEqual(status(self.of(headroom_in=30.0), "uv.lamp_space"), "")
        self.assertEqual(status(self.of(headroom_in=29.9), "uv.lamp_space"), "stop")
        self.assertEqual(status(self.of(headroom_in=None), "uv.lamp_space"), "unknown")
        flat = replace(self.figures, flat=True)
        self.assertEqual(status(self.of(figures=flat, headroom_in=5.0), "uv.lamp_space"), "")

    def test_unsafe_water_wants_class_a_with_a_monitor(self):
        lake = {"source": Source.LAKE}
        self.assertEqual(status(self.of(**lake), "uv.class"), "met")
        for other in (
            replace(self.figures, device_class="B"),
            replace(self.figures, monitored=False),
        ):
            self.assertEqual(status(self.of(figures=other, **lake), "uv.class"), "stop")
            self.assertEqual(status(self.of(figures=other), "uv.class"), "met")

    def test_power_all_year(self):
        # 40 W x 8,766 h = 350.64 kWh
        price = settings().electricity
        (power,) = [r for r in self.of().running if r.kind == "power"]
        self.assertEqual(power.per_year, Decimal("350.640000") * price)


if __name__ == "__main__":
    unittest.main()
