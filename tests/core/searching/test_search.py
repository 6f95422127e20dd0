"""The search against plain enumeration, and what it says of items it leaves out."""

import random
import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal
from itertools import product

from hypothesis import given, settings
from hypothesis import strategies as st

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.costing.chores import stage_minutes
from zesty_glass.core.costing.falling import Rates
from zesty_glass.core.costing.money import added_cost
from zesty_glass.core.proposing.rows import target_of
from zesty_glass.core.proposing.suggest import things_found
from zesty_glass.core.rules import Rules
from zesty_glass.core.searching.found import combinations, places
from zesty_glass.core.searching.play import in_play
from zesty_glass.core.searching.scores import score
from zesty_glass.core.searching.search import search
from zesty_glass.core.searching.states import MICRO
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.checks import CHECKS
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.demo.homes import demo_visits

ITEMS = example_items()
BY_CODE = {i.code: i for i in ITEMS}
VISITS = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))
RULES = Rules()


class Case:
    """A home of the demo, prepared for a search."""

    def __init__(self, visit, years=10):
        self.visit, self.years = visit, years
        self.raw = design_water(visit.samples)
        found = meaning(self.raw, visit.home, visit.complaints, visit.rules)
        self.colour, self.wanted = found.colour, things_found(found)
        self.targets = {a: (target_of(a, RULES)[0], target_of(a, RULES)[2]) for a in self.wanted}

    def search(self, items, home=None):
        return search(
            self.raw,
            self.colour,
            home or self.visit.home,
            self.visit.settings,
            items,
            self.wanted,
            self.years,
            None,
            self.targets,
        )

    def walk(self, chosen, catalogue, home=None):
        option = Option(id="x", name="x", stages=tuple(StageChoice(item=i.code) for i in chosen))
        return walk(
            option, catalogue, self.raw, self.colour, home or self.visit.home, self.visit.settings
        )


CASES = {v.home.name: Case(v) for v in VISITS}


#: kinds that the check of another asks for
ASKED_FOR = {a[1:] for says in CHECKS.values() for a in says.asks if a.startswith("@")}


def subsets(items):
    """Every combination: at most one of each kind on each branch, of cartridges at the tap one for
    each thing; beside a system at the tap stands only what a check asks for.
    """
    groups = {}
    for i in items:
        apart = i.figures.apart if i.scope == "tap" else ""
        groups.setdefault((i.scope, i.kind, apart), []).append(i)
    for chosen in product(*([None, *g] for g in groups.values())):
        taken = [i for i in chosen if i is not None]
        at_tap = [i for i in taken if i.scope == "tap"]
        systems = [i for i in at_tap if i.kind == "system"]
        inside = {BY_CODE[p].kind for s in systems for p in s.figures.parts}
        others = {i.kind for i in at_tap} - {"system"}
        if systems and not others <= ASKED_FOR - inside:
            continue
        yield taken


def plainly(case, items, catalogue, home=None):
    """Walk every combination, one by one: independent of the search's own way."""
    rates = Rates(case.visit.settings.price_growth, case.visit.settings.discount, case.years)
    ends = []
    for taken in subsets(items):
        line = case.walk(taken, catalogue, home)
        if any(c.status == "stop" for s in line.stages for c in s.checks):
            continue
        figures = []
        for name in case.wanted:
            for place in places(name):
                target, op = case.targets[name]
                s = score(
                    name,
                    (line.house if place == "house" else line.tap).get(name),
                    line.source.get(name),
                    target,
                    op,
                )
                figures += [s.best, s.worst]
        cost = round(
            added_cost(
                line.purchases,
                [d for s in line.stages for d in s.dues],
                [r for s in line.stages for r in s.running],
                rates,
                case.years,
            ),
            2,
        )
        waste = round(sum(d.gal_year for s in line.stages for d in s.drains), 3)
        work = round(sum(stage_minutes(s) for s in line.stages), 3)
        ends.append((frozenset(i.code for i in taken), (*figures, -cost, -waste, -work)))
    best = set()
    for codes, f in ends:
        if not any(g != f and all(a >= b for a, b in zip(g, f, strict=True)) for _, g in ends):
            best.add(codes)
    return best, len(ends)


class AgainstPlainEnumeration(unittest.TestCase):
    """Exact: on small catalogs the same set as walking every combination."""

    def compare(self, case, items, home=None):
        parts = [BY_CODE[p] for i in items if i.kind == "system" for p in i.figures.parts]
        catalogue = {i.code: i for i in (*items, *parts)}
        found = case.search([*items, *(p for p in parts if p not in items)], home)
        everything = tuple([*items, *(p for p in parts if p not in items)])
        site = site_of(home or case.visit.home, case.visit.settings, case.raw)
        playing = in_play(
            everything,
            {i.code: i for i in everything},
            source_stream(case.raw, case.colour, site.running_psi),
            site,
            case.wanted,
        ).items
        best, _ = plainly(case, playing, catalogue, home)
        mine = {frozenset(c.items) for c in found.lines}
        self.assertEqual(mine - best, set(), f"{case.visit.home.name}: not best")
        self.assertEqual(best - mine, set(), f"{case.visit.home.name}: missed")

    @settings(max_examples=20, deadline=None)
    @given(st.sampled_from(sorted(CASES)), st.integers(0, 10_000))
    def test_random_small_catalogues(self, name, seed):
        chance = random.Random(seed)
        useful = [i for i in ITEMS if i.kind not in ("regulator", "expansion", "bypass", "system")]
        self.compare(CASES[name], sorted(chance.sample(useful, 8), key=lambda i: i.code))

    def test_iron_well_with_everything_it_needs(self):
        codes = (
            "AC-B15",
            "AC-M15",
            "FE-A10",
            "FE-L12",
            "SO-15",
            "SO-20",
            "CC-15",
            "SD-20B",
            "UV-12H",
            "RO-75M",
        )
        self.compare(CASES["Bungalow, Tinder Lane"], [BY_CODE[c] for c in codes])

    def test_town_water_with_a_system_at_the_tap(self):
        codes = (
            "CC-15",
            "CC-45",
            "SO-15",
            "SO-20",
            "SF-12",
            "CB-T",
            "CP-T",
            "RO-75E",
            "DT-1",
            "PT-1",
        )
        self.compare(CASES["Terrace, 4 Flintlock Row"], [BY_CODE[c] for c in codes])

    def test_low_pressure_is_counted_line_by_line(self):
        case = CASES["Terrace, 4 Flintlock Row"]
        codes = ("CC-15", "CC-45", "SO-15", "SO-20", "SD-20S", "SD-20A", "CB-T", "RO-75E", "RO-TL4")
        for psi in (44.0, 48.0, 52.0):
            self.compare(
                case, [BY_CODE[c] for c in codes], replace(case.visit.home, running_psi=psi)
            )

    def test_of_pumps_that_are_alike_the_cheapest_stands_beside_a_system(self):
        """Told apart by price alone, they are one place; what a system costs is counted once."""
        case = CASES["The Scar house"]
        pump = BY_CODE["BP-1"]
        prices = {"A": Decimal(300), "B": Decimal(200), "C": Decimal(200)}
        more = [replace(pump, code=f"BP-{n}", price=p) for n, p in prices.items()]
        parts = [BY_CODE[p] for p in BY_CODE["DT-1"].figures.parts]
        home = replace(case.visit.home, running_psi=28.0)
        found = case.search([BY_CODE["DT-1"], *parts, *more], home)
        taken = {frozenset(c.items) for c in found.lines if "DT-1" in c.items}
        self.assertEqual(taken, {frozenset({"DT-1", "BP-B"}), frozenset({"DT-1", "BP-C"})})
        self.assertEqual({x.rule for x in found.left_out if x.code == "BP-A"}, {"beaten"})
        alone = case.search([BY_CODE["DT-1"], *parts, more[1]], home)
        cost = {c.cost for c in (*found.lines, *alone.lines) if "DT-1" in c.items}
        self.assertEqual(len(cost), 1)

    def test_a_booster_pump_beside_a_system_that_wants_more_pressure(self):
        case = CASES["Terrace, 4 Flintlock Row"]
        codes = (
            "SO-15",
            "RO-75E",
            "CB-T",
            "CP-T",
            "DT-2",
            "DT-3",
            "RO-TL4",
            "BP-1",
            "UV-T",
            "DS-1",
        )
        for psi in (24.0, 36.0, 52.0):
            home = replace(case.visit.home, running_psi=psi)
            self.compare(case, [BY_CODE[c] for c in codes], home)

    def test_the_same_prices_are_both_kept(self):
        twin = replace(BY_CODE["SO-20"], code="SO-20-TWIN", name="A twin")
        found = CASES["Terrace, 4 Flintlock Row"].search([BY_CODE["SO-20"], twin])
        self.assertEqual({c.items for c in found.lines}, {(), ("SO-20",), ("SO-20-TWIN",)})


class Answers(unittest.TestCase):
    def reasons(self, name, home=None, items=ITEMS):
        found = CASES[name].search(items, home)
        return {x.code: x for x in found.left_out}, found

    def test_every_item_is_in_a_line_or_left_out_with_a_reason(self):
        for case in CASES.values():
            found = case.search(ITEMS)
            used = {c for line in found.lines for c in line.items}
            self.assertEqual(used | {x.code for x in found.left_out}, {i.code for i in ITEMS})
            self.assertEqual(used & {x.code for x in found.left_out}, set())
            self.assertTrue(
                all(x.sentence for x in found.left_out),
                [x for x in found.left_out if not x.sentence],
            )

    def test_doing_nothing_is_always_among_them(self):
        for case in CASES.values():
            self.assertIn((), {c.items for c in case.search(ITEMS).lines})

    def test_order_of_the_catalogue_does_not_matter(self):
        case = CASES["Terrace, 4 Flintlock Row"]
        shuffled = list(ITEMS)
        random.Random(3).shuffle(shuffled)
        self.assertEqual(case.search(shuffled), case.search(ITEMS))

    def test_a_dearer_twin_is_beaten(self):
        dear = replace(
            BY_CODE["SO-20"], code="SO-20-DEAR", price=BY_CODE["SO-20"].price + Decimal(100)
        )
        left, _ = self.reasons("Terrace, 4 Flintlock Row", items=[BY_CODE["SO-20"], dear])
        self.assertEqual(left["SO-20-DEAR"].rule, "beaten")

    def test_a_weak_pump_leaves_the_dense_iron_filter_out(self):
        left, _ = self.reasons("Bungalow, Tinder Lane")
        self.assertEqual(left["FE-D10"].rule, "well.backwash")
        self.assertIn("pump", left["FE-D10"].sentence)

    def test_alumina_is_left_out_at_ph_7_9(self):
        self.assertEqual(self.reasons("The Scar house")[0]["FL-A"].rule, "cartridge.fluoride")

    def test_uv_is_left_out_on_tinted_water(self):
        left, _ = self.reasons("Old schoolhouse")
        self.assertTrue(left["UV-12H"].rule.startswith("uv."))

    def test_one_cubic_foot_for_six_people_is_left_out(self):
        left, _ = self.reasons("Bungalow, Tinder Lane")
        self.assertTrue(
            "SO-10" not in left
            or left["SO-10"].rule.startswith("softener")
            or left["SO-10"].rule == "beaten"
        )

    def test_a_tenant_is_offered_nothing_that_is_plumbed(self):
        _, found = self.reasons("Flat above the bakery")
        self.assertTrue(found.lines)
        self.assertTrue(all(not BY_CODE[c].plumbed for line in found.lines for c in line.items))

    def test_the_terrace_has_a_drinking_tap_only_among_the_answers(self):
        _, found = self.reasons("Terrace, 4 Flintlock Row")
        self.assertTrue(
            any(
                line.items and all(BY_CODE[c].scope == "tap" for c in line.items)
                for line in found.lines
            )
        )

    def test_nothing_found_leaves_everything_out(self):
        case = CASES["House 22"]
        found = search(case.raw, case.colour, case.visit.home, case.visit.settings, ITEMS, ())
        self.assertEqual([c.items for c in found.lines], [()])
        self.assertEqual(len(found.left_out), len(ITEMS))

    def test_it_hears_how_far_it_is(self):
        heard = []
        case = CASES["Terrace, 4 Flintlock Row"]
        search(
            case.raw,
            case.colour,
            case.visit.home,
            case.visit.settings,
            ITEMS,
            case.wanted,
            10,
            None,
            case.targets,
            lambda *x: heard.append(x),
        )
        self.assertTrue(heard and all(done <= of for _, done, of in heard))


class Counting(unittest.TestCase):
    @given(
        st.sets(
            st.sampled_from(
                [i.code for i in ITEMS if i.kind not in ("regulator", "bypass", "expansion")]
            ),
            min_size=1,
            max_size=9,
        )
    )
    def test_combinations_are_counted_as_they_are_listed(self, codes):
        items = [BY_CODE[c] for c in codes]
        self.assertEqual(combinations(items, BY_CODE), sum(1 for _ in subsets(items)))

    def test_figures_add_up_in_whole_millionths(self):
        self.assertEqual(MICRO, 1_000_000)


if __name__ == "__main__":
    unittest.main()
