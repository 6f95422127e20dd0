"""What is proposed first for the seven demo homes, as a seasoned consultant concludes by hand."""

import unittest
from datetime import UTC, datetime
from functools import cache

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.proposing.priorities import WAY_IN_FIRST
from zesty_glass.core.proposing.suggested import Suggestion
from zesty_glass.demo import homes
from zesty_glass.work.catalogue import Question

AT = datetime(2026, 11, 24, 10, tzinfo=UTC)


@cache
def proposed(home: int) -> Suggestion:
    visit = getattr(homes, f"home_{home}")(AT)
    return Question(visit=visit, items={i.code: i for i in example_items()}).suggest()


def ideas(home: int, most: int = 5) -> list[str]:
    return list(dict.fromkeys(x.option.name for x in proposed(home).lines))[:most]


def stages(home: int) -> list[str]:
    return [s.item for s in proposed(home).lines[0].option.stages]


class FirstProposals(unittest.TestCase):
    def test_terrace_on_chalk_with_chloramine(self):
        # somebody keeps a diet low in sodium: what takes it out again at the glass, or potassium,
        # whose salt costs more than four times as much
        self.assertEqual(ideas(1)[0], "Carbon filter + Softener + RO system at the drinking tap")
        potassium = next(
            x for x in proposed(1).lines if x.option.name == "Carbon filter + Softener"
        )
        self.assertIn("for potassium", potassium.names[1])
        self.assertEqual(proposed(1).lines[0].against_diet, 0)
        self.assertIn("Catalytic carbon", proposed(1).lines[0].names[0])

    def test_what_only_adds_stages_is_not_among_the_first_ideas(self):
        self.assertEqual(
            ideas(1)[1:],
            [
                "Carbon filter + Softener",
                "Carbon filter + Salt-free conditioner",
                "Carbon filter",
                # cheaper than potassium, and past the salt for the diet; the chloramine stays
                "Softener + Raw kitchen line",
            ],
        )

    def test_another_idea_is_shown_with_the_first_lines_own_units(self):
        # the search keeps its cheapest sizes, which leave seven things to watch
        first, tap = proposed(1).lines[0], ideas(1)[1]
        with_tap = next(x for x in proposed(1).lines if x.option.name == tap)
        self.assertEqual(with_tap.names[0], first.names[0])
        self.assertLess(len(with_tap.watch), 4)

    def test_farmhouse_with_acid_water(self):
        self.assertEqual(ideas(2)[0], "Acid neutralizer")
        self.assertIn("Upflow", proposed(2).lines[0].names[0])
        self.assertIn("come from the pipes", proposed(2).unanswered)
        self.assertFalse([x for x in ideas(2) if "Softener" in x])

    def test_farmhouse_is_never_offered_a_backwashing_bed(self):
        names = {n for x in proposed(2).lines for n in x.names}
        self.assertFalse([n for n in names if n.startswith("Backwashing")])

    def test_bungalow_with_iron_and_manganese(self):
        self.assertEqual(ideas(3)[0], "Acid neutralizer + Iron filter + Softener")
        names = {n for x in proposed(3).lines for n in x.names}
        self.assertFalse([n for n in names if n.startswith("Dense-media")])

    def test_schoolhouse_on_the_moor(self):
        said = proposed(4).unanswered
        self.assertIn("coliform", said)
        self.assertIn("UV system, class A, 12 gpm, lies flat: Iron 0.5 mg/L", said)
        self.assertIn("rolling boil", proposed(4).tonight[0])
        self.assertEqual(proposed(4).lines[0].ahead, WAY_IN_FIRST)
        names = {n for x in proposed(4).lines for n in x.names}
        self.assertFalse([n for n in names if n.startswith("UV")])
        self.assertTrue([t for t in proposed(4).first if t.startswith("Too little light passes")])

    def test_new_house_on_granite(self):
        self.assertEqual(ideas(5)[0], "RO system at the drinking tap")
        self.assertIn("radon", proposed(5).unanswered)
        # the membrane leaves radon as it is
        self.assertIn("nearest is “Aeration + RO system at the", proposed(5).unanswered)
        names = {n for x in proposed(5).lines for n in x.names}
        self.assertFalse([n for n in names if "Alumina" in n])

    def test_sizes_and_makers_of_one_idea_have_one_name(self):
        of_membranes = [x for x in proposed(5).lines if x.option.name == ideas(5)[0]]
        self.assertGreater(len({x.names for x in of_membranes}), 2)

    def test_flat_of_a_tenant(self):
        self.assertEqual(ideas(6)[0], "Pitcher or counter filter")
        self.assertFalse([x for x in ideas(6) if "Softener" in x])

    def test_house_22_needs_nothing(self):
        self.assertTrue(proposed(7).nothing_needed)
        self.assertEqual(ideas(7)[0], "Do nothing")


if __name__ == "__main__":
    unittest.main()
