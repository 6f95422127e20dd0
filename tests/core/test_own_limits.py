"""What an update of a standard means for a firm, by standards that change here as they do there."""

import unittest
from dataclasses import replace
from unittest import mock

from zesty_glass.core import own_limits
from zesty_glass.core.errors import RuleError
from zesty_glass.core.own_limits import (
    FirmRules,
    LimitNews,
    answered,
    changes_of,
    in_force,
    news,
    questions,
)
from zesty_glass.core.rules import LIMITS, PUBLISHED, Former, Rules

IRON = next(x for x in LIMITS if x.id == "iron.stains")
LEAD = next(x for x in LIMITS if x.id == "lead.us")
STRICTER = replace(IRON, value=0.2, year=2030)
OURS = replace(IRON, value=0.1, source="our stained sinks", year=2026)


def own(*limits):
    """Rules of a firm that changed these, and nothing else."""
    ids = {x.id for x in limits}
    return Rules(limits=(*(x for x in LIMITS if x.id not in ids), *limits))


def value(rules, id):
    return next(x.value for x in rules.limits if x.id == id)


class Updated(unittest.TestCase):
    def update(self):
        """The standard for iron becomes stricter."""
        later = tuple(STRICTER if x == IRON else x for x in LIMITS)
        former = (Former(revision=PUBLISHED + 1, id=IRON.id, was=IRON),)
        for name, now in (("LIMITS", later), ("FORMER", former), ("PUBLISHED", PUBLISHED + 1)):
            patch = mock.patch.object(own_limits, name, now)
            patch.start()
            self.addCleanup(patch.stop)

    def test_a_firm_that_changed_nothing_keeps_nothing_and_follows(self):
        kept = changes_of(Rules())
        self.assertEqual((kept.limits, kept.bands, kept.seen), ((), (), ()))
        self.update()
        self.assertEqual(value(in_force(kept), IRON.id), 0.2)
        self.assertEqual(news(kept), (LimitNews(was=IRON, now=STRICTER, own=None),))
        self.assertEqual(questions(kept), ())

    def test_a_firm_that_holds_copies_follows_too(self):
        copied = FirmRules(limits=LIMITS, bands=Rules().bands)
        self.update()
        self.assertEqual(value(in_force(copied), IRON.id), 0.2)
        self.assertEqual(questions(copied), ())

    def test_its_own_limit_stands_and_is_asked_about(self):
        kept = changes_of(own(OURS))
        self.assertEqual(kept.seen, (IRON,))
        self.assertEqual(questions(kept), ())
        self.update()
        self.assertEqual(value(in_force(kept), IRON.id), 0.1)
        self.assertEqual(questions(kept), (LimitNews(was=IRON, now=STRICTER, own=OURS),))
        self.assertEqual(news(kept), ())

    def test_what_it_saw_is_known_where_nobody_noted_it(self):
        kept = FirmRules(limits=(OURS,))
        self.update()
        self.assertEqual([q.was for q in questions(kept)], [IRON])

    def test_taken(self):
        kept = changes_of(own(OURS))
        self.update()
        taken = answered(kept, IRON.id, take=True)
        self.assertEqual((taken.limits, taken.version), ((), kept.version + 1))
        self.assertEqual(value(in_force(taken), IRON.id), 0.2)
        self.assertEqual(answered(taken, IRON.id, take=True), taken)

    def test_kept_and_not_asked_again(self):
        kept = changes_of(own(OURS))
        self.update()
        stays = answered(kept, IRON.id, take=False)
        self.assertEqual((stays.limits, stays.version), ((OURS,), kept.version))
        self.assertEqual(questions(stays), ())
        self.assertEqual(answered(stays, IRON.id, take=False), stays)

    def test_a_change_of_another_limit_answers_nothing(self):
        kept = changes_of(own(OURS))
        self.update()
        both = changes_of(own(OURS, replace(LEAD, value=0.005)), kept)
        self.assertEqual([q.was for q in questions(both)], [IRON])

    def test_a_new_own_value_is_made_against_what_is_published_then(self):
        kept = changes_of(own(OURS))
        self.update()
        again = changes_of(own(replace(OURS, value=0.15)), kept)
        self.assertEqual(again.seen, (STRICTER,))
        self.assertEqual(questions(again), ())

    def test_one_answer_answers_one_question(self):
        lead = replace(LEAD, value=0.005)
        kept = changes_of(own(OURS, lead))
        stricter = replace(LEAD, value=0.01, year=2030)
        now = tuple({IRON: STRICTER, LEAD: stricter}.get(x, x) for x in LIMITS)
        with mock.patch.object(own_limits, "LIMITS", now):
            self.assertEqual([q.was for q in questions(kept)], [IRON, LEAD])
            taken = answered(kept, IRON.id, take=True)
            self.assertEqual((taken.limits, taken.seen), ((lead,), (LEAD,)))
            self.assertEqual([q.own for q in questions(taken)], [lead])
            stays = answered(kept, IRON.id, take=False)
            self.assertEqual(set(stays.seen), {STRICTER, LEAD})
            self.assertEqual([q.own for q in questions(stays)], [lead])
            # what is not asked is not answered
            self.assertEqual(answered(stays, IRON.id, take=False), stays)

    def test_what_was_read_is_no_news_and_the_first_change_since_is_what_it_knew(self):
        self.update()
        older = replace(IRON, value=0.5, year=1979)
        former = (
            Former(revision=PUBLISHED, id=IRON.id, was=older),
            *own_limits.FORMER,
        )
        with mock.patch.object(own_limits, "FORMER", former):
            read = FirmRules(published=PUBLISHED)
            self.assertEqual([n.was for n in news(read)], [IRON])
            self.assertEqual([n.was for n in news(replace(read, published=PUBLISHED - 1))], [older])
            self.assertEqual(news(replace(read, published=PUBLISHED + 1)), ())
            asked = questions(FirmRules(published=PUBLISHED, limits=(OURS,)))
            self.assertEqual([q.was for q in asked], [IRON])

    def test_no_such_limit(self):
        with self.assertRaises(RuleError) as e:
            answered(FirmRules(), "moon.dust", take=True)
        self.assertEqual(e.exception.code, "limit.unknown")

    def test_bands_of_its_own_stand_and_the_others_follow(self):
        tds, hardness = Rules().bands
        mine = replace(tds, year=2026)
        kept = changes_of(Rules(bands=(mine, hardness)))
        self.assertEqual(kept.bands, (mine,))
        self.assertEqual(in_force(kept).bands, (mine, hardness))
