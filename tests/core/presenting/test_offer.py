"""What a proposal holds: rows with evidence, reasons in words, what changed between revisions,
plans and states.
"""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from typing import get_args

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.analytes import ANALYTES, Kind
from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import ESTABLISHES_HEALTH, STRENGTH, Evidence, Level
from zesty_glass.core.presenting.before_signing import to_know
from zesty_glass.core.presenting.offer import draft_letter, make_offer, plan_terms
from zesty_glass.core.presenting.revision import differences
from zesty_glass.core.proposing.proposal import Plan, Proposal, State, digest, move
from zesty_glass.core.proposing.rows import judged_at, not_addressed, rows, target_of
from zesty_glass.core.ranges import Verdict
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.finding import Weight
from zesty_glass.demo.homes import demo_visits, uid

AT = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
VISITS = demo_visits(AT)
DONE = {v.home.name: assess(v) for v in VISITS}
HOME_1 = VISITS[0]
LATER = date(2026, 12, 20)


def offer(visit=HOME_1, recommended=None, **more):
    base = {
        "number": "261120-TEST",
        "revision": 1,
        "created_at": AT,
        "valid_until": LATER,
        "reasons": "",
    }
    return make_offer(visit, recommended=recommended or visit.options[1].id, **{**base, **more})


class Cells(unittest.TestCase):
    def every(self):
        for a in DONE.values():
            for r in a.rows:
                for c in r.cells:
                    yield a, r, c

    def test_a_removal_lies_within_its_own_ends(self):
        for _, r, c in self.every():
            if c.removal is not None:
                self.assertTrue(
                    c.removal_low - 1e-9 <= c.removal <= c.removal_high + 1e-9, (r.name, c)
                )

    def test_less_is_less_and_says_on_what_evidence(self):
        for a, r, c in self.every():
            if c.change == "less":
                raw = a.options[0].line.source.range(r.analyte)
                self.assertLess(c.range.best, raw.best)
                self.assertTrue(c.evidence, (r.name, c.option))

    def test_health_is_established_only_on_the_two_strongest_levels(self):
        for _, r, c in self.every():
            if ANALYTES[r.analyte].kind is Kind.HEALTH and c.change == "less" and c.established:
                self.assertIn(c.level, ESTABLISHES_HEALTH, (r.name, c.option))

    def test_today_changes_nothing_but_what_was_measured_behind_what_stands_there(self):
        for a in DONE.values():
            behind = {p.analyte for j in a.in_place for p in j.pairs}
            for r in a.rows:
                cell = r.cells[0]
                if cell.change in ("today", "not_tested"):
                    continue
                self.assertTrue(a.in_place, r.name)
                self.assertTrue(r.analyte in behind or cell.change == "no_claim", r.name)

    def test_the_verdict_is_that_of_the_whole_range(self):
        for _, r, c in self.every():
            if c.range is not None and r.target is not None:
                wanted = (
                    c.range.at_most(r.target) if r.op == "at_most" else c.range.at_least(r.target)
                )
                health = ANALYTES[r.analyte].kind is Kind.HEALTH
                weak = health and not c.established and wanted is Verdict.MET
                self.assertEqual(c.meets, Verdict.UNKNOWN if weak else wanted)

    def test_complaints_stand_in_the_customer_s_own_words(self):
        for v in VISITS:
            own = {c.words for c in v.complaints}
            for r in DONE[v.home.name].rows:
                self.assertLessEqual(
                    set(r.complaints), own | {c.words for c in DONE[v.home.name].noticed}
                )

    def test_where_things_are_judged(self):
        for analyte, place in (
            ("hardness", "house"),
            ("iron", "house"),
            ("lead", "tap"),
            ("tds", "tap"),
            ("coliform", "tap"),
            ("sodium", "tap"),
        ):
            self.assertEqual(judged_at(analyte), place)

    def test_targets_are_limits_with_their_reason(self):
        value, why, op = target_of("iron", Rules())
        self.assertEqual((value, op), (0.3, "at_most"))
        self.assertIn("1991", why)
        self.assertEqual(target_of("ph", Rules())[2], "at_least")
        self.assertEqual(target_of("temperature", Rules())[0], None)


class NotAddressed(unittest.TestCase):
    def test_doing_nothing_addresses_nothing_that_asks_to_act(self):
        for v in VISITS:
            a = DONE[v.home.name]
            asked = [r for r in a.rows if r.weight in (Weight.ACT, Weight.HEALTH)]
            self.assertGreaterEqual(len(a.options[0].left), len(asked), v.home.name)

    def test_it_is_worked_out_for_the_line_itself(self):
        a = DONE[HOME_1.home.name]
        for o in a.options:
            self.assertEqual(o.left, not_addressed(o.line, a.meaning, a.rows))

    def test_rows_of_no_lines_are_rows_without_cells(self):
        a = DONE[HOME_1.home.name]
        self.assertTrue(
            all(not r.cells for r in rows((), a.meaning, HOME_1.complaints, HOME_1.rules, "us"))
        )


class Reasons(unittest.TestCase):
    def test_every_line_says_what_it_costs_and_what_it_leaves(self):
        for a in DONE.values():
            for o in a.options:
                if o.line is None or not o.line.stages:
                    continue
                text = " ".join(o.reasons.costs)
                self.assertIn(f"Over {a.horizon} years", text)
                if o.left:
                    self.assertIn("It does not address", text)

    def test_a_line_that_stops_says_that_it_cannot_work(self):
        stopped = [
            o
            for a in DONE.values()
            for o in a.options
            if o.line is not None and o.line.stages and o.line.status == "stop"
        ]
        self.assertTrue(stopped)
        for o in stopped:
            self.assertIn("Cannot work", o.reasons.summary)

    def test_never_safe_never_pure(self):
        for v, a in zip(VISITS, DONE.values(), strict=True):
            for o in a.options:
                text = " ".join(
                    (
                        o.reasons.summary,
                        *o.reasons.gains,
                        *o.reasons.costs,
                        *o.reasons.unknown,
                        draft_letter(v, a, o.id),
                    )
                ).lower()
                for word in (" safe", "pure", "healthy", "guarantee"):
                    self.assertNotIn(word, text, v.home.name)

    def test_the_letter_stands_for_the_reasons_until_somebody_writes_own_words(self):
        drafted = draft_letter(HOME_1, DONE[HOME_1.home.name], HOME_1.options[1].id)
        for typed, letter in (("", True), (f" {drafted} ", True), ("My own words.", False)):
            made = offer(reasons=typed)
            self.assertEqual((made.reasons, made.letter), (typed.strip() or drafted, letter), typed)

    def test_no_letter_for_an_option_that_is_not_there(self):
        self.assertEqual(draft_letter(HOME_1, DONE[HOME_1.home.name], "nope"), "")


class EvidenceInWords(unittest.TestCase):
    def test_levels_from_strongest_to_none(self):
        self.assertEqual(
            sorted(Level, key=STRENGTH.get),
            [
                Level.MEASURED_HERE,
                Level.CERTIFIED,
                Level.TESTED,
                Level.MAKER_STATES,
                Level.TYPICAL,
                Level.NO_CLAIM,
                Level.DOES_NOT_REMOVE,
            ],
        )

    def test_a_certificate_is_named_with_its_date(self):
        text = Evidence(
            level=Level.CERTIFIED,
            certifier="An institute",
            standard="NSF/ANSI 53",
            certificate="C-17",
            checked_on=date(2026, 3, 1),
        ).sentence()
        for part in ("certified", "NSF/ANSI 53", "C-17", "2026-03-01"):
            self.assertIn(part, text)


class Plans(unittest.TestCase):
    def test_what_it_comes_to(self):
        terms = plan_terms(
            Plan(down=Decimal("500"), monthly=Decimal("120"), months=36), Decimal("4500")
        )
        self.assertEqual(terms.total_paid, Decimal("4820"))
        self.assertGreater(terms.apr, 0)

    def test_no_plan_no_terms(self):
        self.assertIsNone(plan_terms(None, Decimal("4500")))

    def test_a_plan_that_cannot_be_is_refused(self):
        for plan in (
            Plan(monthly=Decimal("1"), months=12),
            Plan(down=Decimal("9000"), monthly=Decimal("10"), months=12),
            Plan(monthly=Decimal("9000"), months=24),
        ):
            with self.assertRaises(RuleError):
                plan_terms(plan, Decimal("4500"))

    @given(st.integers(100, 9000), st.integers(6, 60), st.integers(0, 40))
    def test_paying_more_than_the_price_is_a_rate_above_nothing(self, price, months, over):
        monthly = (Decimal(price) * (100 + over) / 100 / months).quantize(Decimal("0.01"))
        terms = plan_terms(Plan(monthly=monthly, months=months), Decimal(price))
        self.assertEqual(terms.total_paid, monthly * months)
        if over == 0:
            self.assertLess(terms.apr, Decimal("1"))
        elif over > 2:
            self.assertGreater(terms.apr, 0)


def made_proposal(**more):
    return Proposal(
        id="p",
        number="n",
        recommended="today",
        reasons="",
        created_at=AT,
        snapshot="{}",
        digest="",
        **more,
    )


class States(unittest.TestCase):
    def test_only_these_moves(self):
        good = {
            ("draft", "presented"),
            ("presented", "accepted"),
            *((s, to) for s in ("presented", "expired") for to in ("declined", "withdrawn")),
            *((s, "replaced") for s in ("presented", "expired", "accepted")),
            ("accepted", "cancelled"),
        }
        every = get_args(State)
        for state in every:
            for to in every:
                with self.subTest(state=state, to=to):
                    if (state, to) in good:
                        move(state, to, LATER)
                    else:
                        self.assertRaises(RuleError, move, state, to, LATER)

    def test_what_was_presented_expires_by_the_day(self):
        p = made_proposal(state="presented", valid_until=LATER)
        after = LATER + timedelta(days=1)
        self.assertEqual((p.state_on(LATER), p.state_on(after)), ("presented", "expired"))
        longer = replace(p, extended_until=after)
        self.assertEqual((longer.until, longer.state_on(after)), (after, "presented"))
        signed = replace(p, state="accepted")
        self.assertEqual(signed.state_on(after), "accepted")
        with self.assertRaises(RuleError) as e:
            move(p.state_on(after), "accepted", p.until)
        self.assertEqual(e.exception.code, "proposal.expired")

    def test_signing_twice(self):
        with self.assertRaises(RuleError) as e:
            move("accepted", "accepted", LATER)
        self.assertEqual(e.exception.code, "proposal.signed")

    @given(st.text(max_size=40), st.text(max_size=40))
    def test_two_snapshots_two_digests(self, a, b):
        self.assertEqual(digest(a) == digest(b), a == b)


class Frozen(unittest.TestCase):
    def test_the_same_visit_gives_the_same_offer(self):
        self.assertEqual(offer(), offer())

    def test_what_cannot_work_is_not_recommended(self):
        for v in VISITS:
            for o in DONE[v.home.name].options:
                if o.line is not None and o.line.status == "stop":
                    with self.assertRaises(RuleError) as e:
                        offer(v, o.id)
                    self.assertEqual(e.exception.code, "offer.stopped")

    def test_a_stop_is_answered_in_writing_or_not_proposed(self):
        v, o = next(
            (v, o)
            for v in VISITS
            for o in DONE[v.home.name].options
            if o.line is not None and o.line.status == "stop"
        )
        stops = [k.sentence for k in to_know(o.line) if k.status == "stop"]
        told = dict.fromkeys(stops, " A specialist has it re-tested before anything is fitted. ")
        known = offer(v, o.id, answers=told).before_signing
        self.assertEqual({k.sentence for k in known if k.status == "stop"}, set(stops))
        self.assertTrue(all(k.answer.startswith("A spec") for k in known if k.status == "stop"))
        self.assertFalse([k for k in known if k.status != "stop" and k.answer])
        for bad in ({**told, stops[0]: "yes"}, {**told, stops[0]: " " * 40}, {}):
            with self.assertRaises(RuleError) as e:
                offer(v, o.id, answers=bad)
            self.assertEqual((e.exception.code, e.exception.where), ("offer.stopped", "answers"))
            self.assertIn(stops[0], e.exception.what)
        # nothing answered: each of them is told
        told_all = [e.exception.what, *(x.what for x in e.exception.also)]
        self.assertEqual([s for s in stops if not any(s in what for what in told_all)], [])

    def test_what_a_softener_adds_is_read_before_signing_whoever_lives_there(self):
        line = next(
            o.line
            for v in VISITS
            if not (v.home.care.low_sodium or v.home.care.low_potassium)
            for o in DONE[v.home.name].options
            if o.line is not None and any(s.kind == "softener" for s in o.line.stages)
        )
        told = [
            k for k in to_know(line) if "mg of sodium to each liter of softened water" in k.sentence
        ]
        self.assertEqual([k.status for k in told], ["say"])

    def test_sodium_is_held_against_the_diet_only_where_somebody_keeps_it(self):
        strict = target_of("sodium", Rules(), diet=True)
        self.assertEqual((strict[0], strict[2]), (20, "at_most"))
        self.assertEqual(target_of("sodium", Rules())[0], 200)
        for visit in VISITS:
            for r in DONE[visit.home.name].rows:
                if r.analyte == "sodium":
                    self.assertEqual(r.target, 20 if visit.home.care.low_sodium else 200)

    def test_no_raw_water_no_proposal(self):
        with self.assertRaises(RuleError) as e:
            offer(replace(HOME_1, samples=()))
        self.assertEqual(e.exception.code, "offer.no_raw")

    def test_unknown_recommendation(self):
        with self.assertRaises(RuleError):
            offer(recommended="nope")

    def test_own_words_win_over_the_draft(self):
        self.assertEqual(offer(reasons="  Because they asked.  ").reasons, "Because they asked.")

    def test_the_right_to_cancel_and_the_cautions_are_in_it(self):
        o = offer()
        self.assertEqual(o.cancel_text, HOME_1.settings.cancel_text)
        self.assertTrue(o.cautions)
        self.assertIn("local law", o.cooling_off)


class Revisions(unittest.TestCase):
    def test_nothing_changed_nothing_said(self):
        self.assertEqual(differences(offer(), offer(revision=2)), ())

    def test_another_recommendation_another_horizon_other_words(self):
        a, b = (
            offer(),
            offer(
                replace(HOME_1, horizon=20),
                HOME_1.options[0].id,
                reasons="They drink more.",
                revision=2,
            ),
        )
        said = {d.what: (d.before, d.after) for d in differences(a, b)}
        self.assertEqual(said["Recommended"], (HOME_1.options[1].name, HOME_1.options[0].name))
        self.assertEqual(said["Horizon"], (f"{HOME_1.horizon} years", "20 years"))
        self.assertEqual(said["Reasons"][1], "They drink more.")

    def test_a_dearer_part_shows_in_what_it_costs(self):
        dear = replace(
            HOME_1, catalogue=tuple(replace(i, price=i.price + 100) for i in HOME_1.catalogue)
        )
        said = [d.what for d in differences(offer(), offer(dear))]
        self.assertTrue(any("to buy and install" in w for w in said))
        self.assertTrue(any("total cost over" in w for w in said))

    def test_a_line_taken_away_and_one_added(self):
        fewer = replace(HOME_1, options=HOME_1.options[:2])
        away = [d for d in differences(offer(), offer(fewer)) if d.what.startswith("Line “")]
        back = [d for d in differences(offer(fewer), offer()) if d.what.startswith("Line “")]
        self.assertEqual({d.after for d in away}, {"not offered any more"})
        self.assertEqual({d.after for d in back}, {"offered"})

    def test_a_struck_reading_is_said(self):
        s = HOME_1.samples[0]
        struck = replace(
            HOME_1,
            samples=(
                replace(
                    s,
                    readings=(
                        *s.readings[:-1],
                        replace(s.readings[-1], struck_at=AT, struck_because="spilt"),
                    ),
                ),
                *HOME_1.samples[1:],
            ),
        )
        self.assertTrue(any(d.after == "struck" for d in differences(offer(), offer(struck))))

    def test_there_and_back_is_the_same_list_turned_round(self):
        a, b = (
            offer(),
            offer(
                replace(HOME_1, horizon=15),
                plan=Plan(down=Decimal("100"), monthly=Decimal("150"), months=36),
            ),
        )
        there, back = differences(a, b), differences(b, a)
        plain = ("Horizon", "Payment plan", "Recommended")
        self.assertEqual(
            [(d.what, d.before, d.after) for d in there if d.what in plain],
            [(d.what, d.after, d.before) for d in back if d.what in plain],
        )


class Verdicts(unittest.TestCase):
    def test_unknown_is_never_met(self):
        for a in DONE.values():
            for r in a.rows:
                for c in r.cells:
                    if c.change in ("unknown", "not_tested"):
                        self.assertIsNot(c.meets, Verdict.MET)


class BeforeSigning(unittest.TestCase):
    def test_every_stop_warning_and_unknown_of_the_recommended_line_stands_there(self):
        seen = 0
        for visit in demo_visits(AT):
            assessed = assess(visit)
            for o in assessed.options:
                if o.line is None or o.line.status == "stop":
                    continue
                try:
                    made = offer(visit, o.id)
                except RuleError:
                    continue
                said = {(k.stage, k.status, k.sentence) for k in made.before_signing}
                wanted = {
                    (s.name, c.status, c.sentence)
                    for s in o.line.stages
                    for c in s.checks
                    if c.status in ("stop", "warn", "unknown")
                }
                self.assertLessEqual(wanted, said)
                seen += len(wanted)
        self.assertGreater(seen, 10)

    def test_a_health_finding_stands_first(self):
        schoolhouse = next(v for v in demo_visits(AT) if v.id == uid("home-4-visit"))
        made = offer(schoolhouse, "today")
        self.assertIn("do not drink it untreated", " ".join(made.health))
        self.assertTrue(made.tonight)
