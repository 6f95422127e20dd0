"""The letter that a proposal begins with: what it says of each kind of home, how long it is, and
how hard to read.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime
from decimal import Decimal

import textstat

from zesty_glass.core.assess import assess
from zesty_glass.core.presenting.cover_letter import cover_letter
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.treating.letting import Letting
from zesty_glass.demo.homes import demo_visits

AT = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
VISITS = {v.home.name: v for v in demo_visits(AT)}
DONE = {name: assess(v) for name, v in VISITS.items()}
TERRACE, ACID, FINE = "Terrace, 4 Flintlock Row", "Withy Bank farmhouse", "House 22"
RUSTY, MOOR, SCAR, FLAT = (
    "Bungalow, Tinder Lane",
    "Old schoolhouse",
    "The Scar house",
    "Flat above the bakery",
)


def letter(home, option, **changed):
    visit, done = VISITS[home], DONE[home]
    if changed:
        visit = replace(visit, **changed)
        done = assess(visit)
    id = next((o.id for o in done.options if o.name == option), option)
    return cover_letter(visit, done, id)


def text(home, option, **changed):
    return " ".join(letter(home, option, **changed))


class Every(unittest.TestCase):
    def every(self):
        for name, done in DONE.items():
            for o in done.options:
                yield f"{name}, {o.name}", " ".join(cover_letter(VISITS[name], done, o.id))

    def test_it_is_a_letter_and_no_report(self):
        for where, said in self.every():
            self.assertTrue(55 <= len(said.split()) <= 165, (where, len(said.split())))

    def test_it_reads_at_grade_8_and_below(self):
        for where, said in self.every():
            self.assertLessEqual(textstat.flesch_kincaid_grade(said), 8, where)

    def test_no_sentence_is_said_twice_or_is_longer_than_a_breath(self):
        for where, said in self.every():
            sentences = [s for s in said.replace("?", ".").split(". ") if s]
            self.assertEqual(len(sentences), len(set(sentences)), where)
            self.assertLessEqual(max(len(s.split()) for s in sentences), 32, where)

    def test_every_complaint_is_answered_or_said_to_be_open(self):
        for name, visit in VISITS.items():
            for o in DONE[name].options:
                said = " ".join(cover_letter(visit, DONE[name], o.id))
                for c in visit.complaints:
                    self.assertIn(f"“{c.words}”", said)

    def test_it_calls_nothing_safe(self):
        for where, said in self.every():
            for word in (" safe", "pure", "healthy", "guarantee"):
                self.assertNotIn(word, said.lower(), where)


class Told(unittest.TestCase):
    def test_a_cause_is_named_once_for_all_that_it_causes(self):
        said = text(TERRACE, "Softener and drinking tap")
        self.assertIn(
            "“White crust on the kettle” and “Dry skin after every shower” come from hardness at"
            " 19 gpg. “It smells like a pool” comes from chloramine at 1.3 mg/L.",
            said,
        )

    def test_the_one_complaint_is_not_said_again(self):
        self.assertTrue(
            text(FLAT, "Pitcher").startswith(
                "You told us about “It tastes of the pool”. That comes from chloramine at 1.2 mg/L."
            )
        )

    def test_where_nobody_complained(self):
        self.assertTrue(text(SCAR, "today").startswith("You asked us to test your water."))

    def test_what_nothing_explains_is_said_to_be_open(self):
        odd = Complaint(id="odd", words="Black specks", sign="black_specks")
        said = text(FINE, "today", complaints=(odd,))
        self.assertIn("We do not know yet what causes “Black specks”.", said)


class Found(unittest.TestCase):
    def test_health_comes_first_and_its_figure_is_said_once(self):
        said = text(ACID, "Upflow calcite")
        self.assertLess(said.index("over a health limit"), said.index("comes from"))
        self.assertEqual(said.count("1.6 mg/L"), 1)

    def test_several_things_of_health_are_told_together(self):
        self.assertIn("(127 Bq/L), each over a health limit.", text(SCAR, "today"))

    def test_bacteria_are_what_the_laboratory_found(self):
        self.assertIn("The laboratory found coliform bacteria: do not drink", text(MOOR, "today"))

    def test_a_kit_that_reads_over_a_guideline_asks_for_a_laboratory(self):
        said = text(RUSTY, "today")
        self.assertIn("Our kit reads manganese at 0.12 mg/L; a certified laboratory", said)
        self.assertIn("“Eggs, but only at the hot tap” comes from the water heater.", said)
        self.assertIn("We also found a pH of 6.6, worth treating.", said)

    def test_what_nobody_complained_of_is_comfort_and_no_need(self):
        self.assertIn("hardness at 7 gpg, which is a matter of comfort.", text(SCAR, "today"))


class Recommended(unittest.TestCase):
    def test_what_it_is_what_it_does_and_what_the_next_best_lacks(self):
        said = letter(TERRACE, "Without salt")[1]
        self.assertEqual(
            said,
            "We recommend “Without salt”: salt-free conditioner, carbon filter, sediment filter and"
            " RO system. It leaves chloramine at 0.065 mg/L. “Softener and drinking tap” would also"
            " treat hardness. It costs $690 more over 10 years.",
        )

    def test_of_two_that_do_the_same_the_cheaper_is_named(self):
        self.assertIn(
            "“Drinking tap, membrane” does as much for what we found. It costs $1,270 less over 10"
            " years.",
            text(SCAR, "Carbon for the house"),
        )

    def test_what_costs_less_and_treats_less(self):
        self.assertIn(
            "“Pitcher” costs $390 less over 10 years but does not treat chloramine.",
            text(FLAT, "Counter filter"),
        )

    def test_what_is_treated_where_it_is_drunk_alone(self):
        said = text(TERRACE, "Drinking tap only")
        self.assertIn("It treats chloramine at the drinking tap only.", said)
        self.assertIn("It does not treat hardness. It costs $700", said)

    def test_nothing_needed(self):
        said = text(FINE, "today")
        self.assertIn("That needs no treatment. We ran 7 tests and found nothing", said)
        self.assertIn("“Carbon pitcher” would cost $1,900 over 10 years for no need", said)
        self.assertNotIn("sign", said)

    def test_what_nothing_needs_says_so(self):
        self.assertIn("Nothing that we found needs it.", text(FINE, "Carbon pitcher"))

    def test_what_nothing_proves_says_so(self):
        self.assertIn("No test or certificate shows", text(FLAT, "Softener"))
        for home, option in ((TERRACE, "Drinking tap only"), (ACID, "Upflow calcite")):
            self.assertNotIn("No test or certificate shows", text(home, option))

    def test_another_of_the_same_name_is_no_other(self):
        visit = VISITS[TERRACE]
        twin = replace(visit.options[1], id="twin")
        said = text(TERRACE, visit.options[1].id, options=(visit.options[1], twin))
        self.assertNotIn("does as much", said)

    def test_a_system_of_nothing_bought_is_no_system(self):
        visit = VISITS[TERRACE]
        empty = replace(visit.options[0], id="none", name="Wait", stages=(), keeps=())
        waiting = replace(visit, options=(empty, *visit.options))
        said = " ".join(cover_letter(waiting, assess(waiting), "none"))
        self.assertIn("We recommend that you buy nothing yet.", said)
        self.assertNotIn("sign", said)


class Left(unittest.TestCase):
    def test_what_is_expected_and_not_predicted(self):
        said = text(ACID, "Upflow calcite")
        self.assertIn("It leaves pH at 7.4.", said)
        self.assertIn("We expect first-draw copper to fall; a new first-draw test", said)
        self.assertNotIn("does not treat", said)

    def test_what_is_not_proven_and_what_is_not_touched(self):
        said = text(SCAR, "Drinking tap, membrane")
        self.assertIn("It does not treat radon in water and hardness.", said)
        self.assertIn("It is not proven for arsenic.", said)

    def test_buying_nothing_leaves_what_was_found(self):
        self.assertIn(
            "Buying nothing does not treat coliform bacteria, tannin, total iron and turbidity.",
            text(MOOR, "today"),
        )


class Costs(unittest.TestCase):
    def test_to_buy_and_over_the_years_as_they_are_known(self):
        self.assertIn(
            "It costs $4,740 to buy and install, and about $9,800 in total over 10 years.",
            text(TERRACE, "Softener and drinking tap"),
        )
        self.assertIn("and at least $20,790 in total", text(MOOR, "Whole house"))
        self.assertIn("What you have now costs about $5,340", text(TERRACE, "today"))

    def test_rent_is_said_beside_what_is_bought(self):
        done, visit = DONE[TERRACE], VISITS[TERRACE]
        chosen = done.options[1]
        let = Letting(kind="rental", per_month=Decimal("35"), months=12)
        bought = tuple(replace(p, let=let) for p in chosen.line.purchases[:1])
        rented = replace(chosen, line=replace(chosen.line, purchases=bought))
        said = " ".join(cover_letter(visit, replace(done, options=(rented,)), chosen.id))
        self.assertIn("The rent is $35.00 a month.", said)
        self.assertNotIn("rent", text(TERRACE, chosen.name))


class Next(unittest.TestCase):
    def test_first_steps_then_signing_and_who_comes(self):
        said = letter(TERRACE, "Drinking tap only")[-1]
        self.assertTrue(said.startswith("Please begin with the first steps"))
        self.assertIn("sign this proposal. We then set a day to install it", said)
        self.assertIn("We then bring it", letter(FLAT, "Pitcher")[-1])

    def test_health_advice_until_then(self):
        self.assertIn("follow the health advice on this page", letter(MOOR, "Whole house")[-1])
        self.assertNotIn("health advice", letter(TERRACE, "today")[-1])


if __name__ == "__main__":
    unittest.main()
