"""What demonstrations show: differences only where ranges are apart, before/after, refusals, and
the sentences beside them.
"""

import unittest
from dataclasses import replace

from tests.making import (
    NOON,
    drop_kit,
    from_lab,
    hardness,
    home,
    reading,
    sample,
    settings,
    shown,
    softener,
    tds,
    tds_meter,
)
from zesty_glass.core.demonstrating.about import ABOUT, NOT_OFFERED
from zesty_glass.core.demonstrating.around import Around
from zesty_glass.core.demonstrating.demonstrations import (
    ChlorineTest,
    ColourColumn,
    Demonstration,
    Kettle,
    Lather,
    SideBySide,
    TastedWater,
    Taster,
    Tasting,
    Through,
    Vial,
)
from zesty_glass.core.demonstrating.shown import NOT_FLUSHED, show
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import Level
from zesty_glass.core.home import Source
from zesty_glass.core.testing.observations import MeterDisplays
from zesty_glass.core.testing.water import water_of
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.measured import measured_here
from zesty_glass.core.treating.option import Option, StageChoice

RAW = sample(
    tds(448, 450),
    hardness(19),
    shown("chlorine_free", 0.3, 0.05),
    shown("chlorine_total", 1.5, 0.05),
    shown("tannin", 1.8, 0.1),
)
PITCHER = sample(
    tds(402, 404),
    shown("chlorine_total", 0.4, 0.05),
    id="pitcher",
    name="Pitcher",
    raw=False,
    treated=True,
    kind="pitcher",
    after_item="PT-1",
)
NEW = sample(
    tds(436, 444),
    id="new",
    name="New",
    raw=False,
    treated=True,
    kind="pitcher",
    just_changed=True,
    after_item="PT-1",
)
ITEM = softener(2)
LINE = walk(
    Option(id="o", name="Softener", stages=(StageChoice(item=ITEM.code),)),
    {ITEM.code: ITEM},
    water_of(RAW),
    None,
    home(),
    settings(),
)


def around(*samples, home_=None):
    all_ = samples or (RAW, PITCHER, NEW)
    return Around(
        samples={s.id: s for s in all_},
        waters={s.id: water_of(s) for s in all_},
        lines={"o": LINE},
        home=home_ or home(source=Source.CITY),
        settings=settings(),
        meanings={},
    )


def made(body, **more):
    return Demonstration(id="d", made_at=NOON, body=body, **more)


class SideBySides(unittest.TestCase):
    def bars(self, *ids, at=None, **more):
        return show(made(SideBySide(samples=ids, **more)), at or around()).result.bars

    def test_overlap_shows_no_difference(self):
        flushed = around(RAW, PITCHER, replace(NEW, just_changed=False))
        beside = [b.beside for b in self.bars("raw", "new", at=flushed)]
        self.assertEqual(beside, ["", "no difference shown"])

    def test_a_filter_that_is_not_flushed_is_not_compared(self):
        self.assertEqual([b.beside for b in self.bars("raw", "new")], ["", NOT_FLUSHED])
        self.assertEqual(self.bars("raw", "new")[1].range.best, 440)  # its reading stands there

    def test_apart_shows_how_much_with_its_ends(self):
        self.assertRegex(self.bars("raw", "pitcher")[1].beside, r"^10 % less \(\d+ to \d+ %\)$")

    def test_the_first_is_what_the_others_are_held_against(self):
        self.assertEqual(self.bars("pitcher", "raw")[1].beside, "higher in the second")

    def test_two_factors_are_not_compared(self):
        other = sample(
            reading("tds", tds_meter(factor=0.7), MeterDisplays(displays=(300, 301))),
            id="other",
            raw=False,
        )
        self.assertIn("not compared", self.bars("raw", "other", at=around(RAW, other))[1].beside)

    def test_an_expected_bar_is_predicted(self):
        bar = self.bars("raw", option="o")[-1]
        self.assertTrue(bar.predicted and bar.name.startswith("Expected"))

    def test_a_glass_not_tested_has_no_bar(self):
        self.assertIsNone(
            self.bars("raw", "dry", at=around(RAW, sample(id="dry", raw=False)))[1].range
        )

    def test_hardness_stands_beside_and_no_formula_joins_the_two(self):
        out = show(made(SideBySide(samples=("raw", "pitcher"), option="o")), around())
        self.assertEqual([b.hardness != "" for b in out.result.bars], [True, False, True])
        self.assertIn("19", out.result.bars[0].hardness)
        self.assertEqual(len(out.sentences), 1)
        self.assertIn("No formula", out.sentences[0])
        alone = show(made(SideBySide(samples=("pitcher",))), around())
        self.assertEqual(alone.sentences, ())

    def test_gone_glasses_and_lines_are_refused(self):
        for body in (
            SideBySide(samples=("nobody",)),
            SideBySide(samples=("raw",), option="x"),
            Kettle(sample="x"),
            Through(option="x"),
            ChlorineTest(sample="raw", after="x"),
            ColourColumn(sample="raw", option="x"),
        ):
            out = show(made(body), around())
            self.assertTrue(out.refused and out.result is None, body)

    def test_bad_choices(self):
        for ids in ((), ("a", "a"), tuple(map(str, range(9)))):
            with self.assertRaises(RuleError):
                SideBySide(samples=ids)


class Lathers(unittest.TestCase):
    vials = (
        Vial(id="t", name="Tap", role="tap", sample="raw", steps=(3,) * 11, held=True, cloud=True),
        Vial(id="s", name="Soft", role="softened", steps=(3, 3), held=True),
    )

    def test_counted(self):
        out = show(made(Lather(vials=self.vials, spoon_killed=True)), around())
        self.assertEqual(
            (out.result.vials[0].times.best, out.result.vials[0].times.high), (5.5, 11)
        )
        self.assertEqual(out.result.household, 0.2)
        text = " ".join(out.sentences)
        for words in (
            "5.5 times",
            "3 drops at a time",
            "cautious estimate is 20 %",
            "clouds “Tap”",
            "one part in 6",
        ):
            self.assertIn(words, text)

    def test_simulated_from_hardness(self):
        out = show(made(Lather(vials=self.vials), simulated=True), around())
        self.assertEqual(out.result.vials[0].drops, out.result.vials[0].expected)
        self.assertGreater(out.result.vials[0].drops.best, out.result.vials[1].drops.best)

    def test_a_count_far_from_its_hardness_is_asked_about(self):
        # 325 mg/L in 25 mL at 6 mg a mg and 2.5 mg a drop: 2 + 19.5 = 21.5 drops at most
        few = replace(self.vials[0], steps=(3, 3))
        flags = show(made(Lather(vials=(few, self.vials[1]))), around()).flags
        self.assertEqual([f.id for f in flags], ["lather.far.tap"])
        self.assertIn("6 drops", flags[0].sentence)
        right = replace(self.vials[0], steps=(3,) * 7)
        self.assertEqual(show(made(Lather(vials=(right, self.vials[1]))), around()).flags, ())

    def test_a_simulated_count_is_never_asked_about(self):
        few = replace(self.vials[0], steps=(3, 3))
        out = show(made(Lather(vials=(few, self.vials[1])), simulated=True), around())
        self.assertEqual(out.flags, ())

    def test_conditioned_water_needs_the_soap_of_the_tap(self):
        third = replace(self.vials[0], id="c", name="Without salt", role="conditioned")
        text = " ".join(show(made(Lather(vials=(self.vials[0], third))), around()).sentences)
        self.assertIn("“Without salt” needs as much soap as the tap", text)
        less = replace(third, steps=(3, 3))
        text = " ".join(show(made(Lather(vials=(self.vials[0], less))), around()).sentences)
        self.assertIn("“Without salt” took less soap than the tap", text)
        self.assertNotIn("as much soap", text)

    def test_no_lather_no_ratio(self):
        out = show(
            made(Lather(vials=(replace(self.vials[0], held=False), self.vials[1]))), around()
        )
        self.assertIsNone(out.result.vials[0].times)
        self.assertIsNone(out.result.household)


class BeforeAfters(unittest.TestCase):
    def test_chlorine_and_smell(self):
        out = show(
            made(
                ChlorineTest(
                    sample="raw", after="pitcher", smell_before="strong", smell_after="faint"
                )
            ),
            around(),
        )
        self.assertEqual(out.result.removals["chlorine_total"].shown, "removed")
        self.assertIn("tested in one only", [r[3] for r in out.result.rows])
        self.assertEqual(out.sentences, ("Smell before: strong. After: faint.",))

    def test_behind_a_filter_that_is_not_flushed_nothing_is_compared(self):
        fresh = around(RAW, replace(PITCHER, just_changed=True))
        out = show(made(ChlorineTest(sample="raw", after="pitcher")), fresh)
        rows = {r[0]: r[3] for r in out.result.rows}
        self.assertEqual((rows["chlorine_total"], out.result.removals), (NOT_FLUSHED, {}))

    def test_colour_taken_out_or_not(self):
        for after, words in (("clear", "tannin"), ("coloured", "No change")):
            self.assertIn(
                words,
                show(
                    made(ColourColumn(sample="raw", looked_before="coloured", looked_after=after)),
                    around(),
                ).sentences[1],
            )

    def test_unequal_cups_are_flagged(self):
        self.assertEqual(
            show(made(ColourColumn(sample="raw", equal_volumes=False)), around()).flags[0].id,
            "colour.volumes",
        )

    def test_expected_is_said_to_be(self):
        self.assertTrue(
            show(
                made(ChlorineTest(sample="raw", option="o"), simulated=True), around()
            ).result.predicted
        )


class Kettles(unittest.TestCase):
    def test_at_most_twice_without_calcium(self):
        out = show(made(Kettle(sample="raw", litres_day=4)), around())
        self.assertEqual(" ".join(out.sentences).lower().count("at most"), 2)

    def test_nothing_to_say_without_hardness(self):
        self.assertIn("not tested", show(made(Kettle(sample="pitcher")), around()).refused)


class Tastings(unittest.TestCase):
    def body(self, *ids, **more):
        codes = ("BDF", "GHJ")
        waters = tuple(TastedWater(sample=i, code=c) for i, c in zip(ids, codes, strict=True))
        return Tasting(
            waters=waters,
            tasters=(Taster(name="A", order=codes, ranks={"BDF": 1, "GHJ": 2}),),
            **more,
        )

    def test_the_key_stays_secret_until_it_is_shown(self):
        self.assertEqual(
            show(made(self.body("raw", "pitcher", sanitised=("pitcher",))), around()).result.key, {}
        )
        self.assertEqual(
            show(
                made(self.body("raw", "pitcher", sanitised=("pitcher",), shown_at=NOON)), around()
            ).result.key,
            {"BDF": "Kitchen cold", "GHJ": "Pitcher"},
        )

    def test_refused_says_which_and_why(self):
        self.assertIn(
            "New", show(made(self.body("raw", "new", sanitised=("new",))), around()).refused
        )
        self.assertIn(
            "private",
            show(
                made(self.body("raw", "pitcher", sanitised=("pitcher",))), around(home_=home())
            ).refused,
        )


class MeasuredHere(unittest.TestCase):
    """A before and after of this home is evidence for the item it came from."""

    def found(self, *samples):
        return measured_here(samples, {s.id: water_of(s) for s in samples})

    def test_from_a_sample_that_names_its_item(self):
        self.assertEqual(self.found(RAW, PITCHER)["PT-1"]["chlorine_total"].shown, "removed")

    def test_not_from_one_just_changed_past_its_life_or_nameless(self):
        for s in (NEW, replace(PITCHER, past_life=True), replace(PITCHER, after_item=None)):
            self.assertEqual(self.found(RAW, s), {})

    def test_health_only_from_certified_results_before_and_after(self):
        before, after = from_lab("arsenic", 0.02), from_lab("arsenic", 0.002)
        field = replace(
            after,
            instrument=drop_kit("arsenic", "mg/L"),
            observation=replace(after.observation, certified=False),
        )
        self.assertIn(
            "arsenic",
            self.found(sample(before), sample(after, id="b", raw=False, after_item="X"))["X"],
        )
        uncertified = replace(after, observation=field.observation)
        self.assertEqual(
            self.found(sample(before), sample(uncertified, id="b", raw=False, after_item="X")), {}
        )

    def test_it_stands_in_the_line_in_place_of_the_claim(self):
        behind = sample(hardness(2), id="b", raw=False, treated=True, after_item=ITEM.code)
        line = walk(
            Option(id="o", name="S", stages=(StageChoice(item=ITEM.code),)),
            {ITEM.code: ITEM},
            water_of(RAW),
            None,
            home(),
            settings(),
            measured=self.found(RAW, behind),
        )
        q = line.house.get("hardness")
        self.assertIs(q.evidence, Level.MEASURED_HERE)
        self.assertAlmostEqual(q.range.best, water_of(behind).range("hardness").best)

    def test_ph_is_no_matter_to_remove(self):
        self.assertEqual(
            self.found(
                sample(shown("ph", 6.2)),
                sample(shown("ph", 7.4), id="b", raw=False, after_item="X"),
            ),
            {},
        )


class Words(unittest.TestCase):
    def test_each_says_what_it_shows_and_does_not(self):
        self.assertTrue(all(a.shows and a.does_not_show and a.steps for a in ABOUT.values()))
        self.assertTrue(all(n.why for n in NOT_OFFERED))

    def test_cautions_stand_where_the_hands_are(self):
        self.assertIn("burn", ABOUT["distilling"].cautions[0])
        self.assertTrue(
            all(
                ABOUT[k].cautions for k in ("lather", "colour", "chlorine", "distilling", "tasting")
            )
        )

    def test_nothing_is_called_safe(self):
        text = " ".join(
            f"{a.shows} {' '.join(a.steps)} {' '.join(a.cautions)}" for a in ABOUT.values()
        ).lower()
        self.assertNotIn("safe", text)
