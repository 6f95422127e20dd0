"""What goes out besides the visit file: calendar, CSV, differences between revisions."""

import csv
import io
import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st
from icalendar import Calendar

from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.offer import make_offer
from zesty_glass.core.presenting.revision import differences
from zesty_glass.core.proposing.proposal import Plan
from zesty_glass.demo.homes import demo_visits, home_1, home_7, uid
from zesty_glass.documents.calendar import due_dates, service_calendar
from zesty_glass.documents.sheets import safe
from zesty_glass.documents.tables import (
    COST_COLUMNS,
    READING_COLUMNS,
    costs_csv,
    readings_csv,
)

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
VISIT = home_1(AT)


def offer(visit=VISIT, recommended=uid("home-1-option-b"), revision=1, **more):
    return make_offer(
        visit,
        number="261120-AAAA",
        revision=revision,
        created_at=AT,
        valid_until=date(2026, 12, 20),
        recommended=recommended,
        reasons=more.pop("reasons", ""),
        **more,
    )


OFFER = offer()


def table(data):
    return list(csv.reader(io.StringIO(data.decode("utf-8-sig"))))


class CalendarDates(unittest.TestCase):
    @given(st.floats(0.5, 240), st.integers(1, 20))
    def test_as_many_as_fall_due(self, every, years):
        plainly = sum(1 for k in range(1, 2000) if k * every < 12 * years - 1e-9)
        self.assertEqual(len(due_dates(date(2026, 1, 1), every, years)), plainly)

    @given(st.floats(0.5, 60), st.integers(1, 20))
    def test_in_order_and_inside_the_horizon(self, every, years):
        start = date(2026, 1, 1)
        dates = due_dates(start, every, years)
        self.assertEqual(dates, sorted(dates))
        self.assertTrue(all(start < d <= start + timedelta(days=366 * years) for d in dates))

    def test_a_600_gallon_cartridge_at_two_gallons_a_day(self):
        """Due every 9.86 months: 300 days apart."""
        every = 600 / (2 * 30.4375)
        self.assertEqual(round(every, 2), 9.86)
        self.assertEqual(
            [(d - date(2026, 1, 1)).days for d in due_dates(date(2026, 1, 1), every, 2)], [300, 600]
        )

    def test_events_read_back(self):
        calendar = Calendar.from_ical(service_calendar(OFFER, "p", date(2027, 1, 4), AT))
        events = calendar.walk("VEVENT")
        self.assertTrue(events)
        said = [str(e["description"]) for e in events]
        self.assertTrue(all("in today’s prices" in s or "bags of salt" in s for s in said))
        self.assertEqual(len(calendar.walk("VALARM")), len(events))

    def test_salt_is_filled_as_often_as_it_is_counted(self):
        chosen = next(o for o in OFFER.options if o.id == OFFER.recommended)
        [salt] = [c for c in chosen.chores.chores if c.kind == "salt"]
        calendar = Calendar.from_ical(service_calendar(OFFER, "p", date(2027, 1, 4), AT, 1))
        filled = [e for e in calendar.walk("VEVENT") if "bags of salt" in str(e["description"])]
        # the last of a year falls on its end, where the next begins
        self.assertIn(round(salt.times_year) - len(filled), (0, 1))

    def test_the_same_again_is_the_same_bytes(self):
        self.assertEqual(
            service_calendar(OFFER, "p", date(2027, 1, 4), AT),
            service_calendar(OFFER, "p", date(2027, 1, 4), AT),
        )

    def test_nothing_to_replace(self):
        with self.assertRaises(RuleError) as e:
            service_calendar(offer(home_7(AT), "today"), "p", date(2027, 1, 4), AT)
        self.assertEqual(e.exception.code, "calendar.empty")


class Tables(unittest.TestCase):
    def test_costs_have_every_line(self):
        rows = table(costs_csv(OFFER))
        self.assertEqual(tuple(rows[0]), COST_COLUMNS)
        self.assertEqual(len(rows) - 1, sum(len(c.lines) for o in OFFER.options for c in o.costs))

    def test_totals_add_up_to_the_cent(self):
        rows = table(costs_csv(OFFER))[1:]
        for o in OFFER.options:
            for c in o.costs:
                self.assertEqual(
                    sum(Decimal(r[10]) for r in rows if r[1] == o.name and int(r[3]) == c.years),
                    c.total,
                )

    def test_every_reading_of_every_home(self):
        for visit in demo_visits(AT):
            rows = table(readings_csv(visit, assess(visit)))
            self.assertEqual(tuple(rows[0]), READING_COLUMNS)
            self.assertEqual(len(rows) - 1, sum(len(s.readings) for s in visit.samples))

    def test_ranges_hold_their_best(self):
        for row in table(readings_csv(VISIT, assess(VISIT)))[1:]:
            if row[5] and row[7]:
                self.assertTrue(float(row[6]) <= float(row[5]) <= float(row[7]), row)

    @given(st.text(max_size=12))
    def test_no_cell_is_a_formula(self, text):
        out = safe(text)
        if out[:1] in ("=", "+", "@", "\t", "\r", "-"):
            float(out)  # only a number may begin so

    def test_numbers_stay_numbers(self):
        self.assertEqual((safe(-1.5), safe("-2"), safe(None)), ("-1.5", "-2", ""))


class Differences(unittest.TestCase):
    def told(self, before, after):
        return {d.what: (d.before, d.after) for d in differences(before, after)}

    def test_nothing_changed_nothing_told(self):
        self.assertEqual(differences(OFFER, offer(revision=2)), ())

    def test_another_recommendation(self):
        told = self.told(OFFER, offer(recommended=uid("home-1-option-a"), reasons="x"))
        self.assertEqual(told["Recommended"], ("Softener and drinking tap", "Drinking tap only"))

    def test_prices_and_totals(self):
        dear = replace(
            VISIT,
            catalogue=tuple(
                replace(i, price=i.price + 100) if i.code == "SO-20" else i for i in VISIT.catalogue
            ),
        )
        told = self.told(OFFER, offer(dear, reasons=OFFER.reasons))
        self.assertIn("Softener and drinking tap: to buy and install", told)
        self.assertIn("Softener and drinking tap: total cost over 10 years", told)
        self.assertNotIn("Drinking tap only: to buy and install", told)

    def test_lines_that_came_and_went(self):
        told = self.told(
            OFFER, offer(replace(VISIT, options=VISIT.options[1:]), reasons=OFFER.reasons)
        )
        self.assertEqual(told["Line “Drinking tap only”"], ("offered", "not offered any more"))

    def test_readings(self):
        raw = VISIT.samples[0]
        fewer = replace(
            VISIT, samples=(replace(raw, readings=raw.readings[1:]), *VISIT.samples[1:])
        )
        told = self.told(OFFER, offer(fewer, reasons=OFFER.reasons))
        self.assertEqual(told["Total dissolved solids (TDS), Kitchen cold"][1], "struck")

    def test_a_payment_plan(self):
        told = self.told(
            OFFER,
            offer(
                plan=Plan(down=Decimal(0), monthly=Decimal("220"), months=24), reasons=OFFER.reasons
            ),
        )
        self.assertEqual(told["Payment plan"][0], "none")
        self.assertIn("24 payments", told["Payment plan"][1])

    def test_it_is_told_the_other_way_round_too(self):
        a, b = OFFER, offer(recommended=uid("home-1-option-a"), reasons="x")
        self.assertEqual(
            self.told(a, b),
            {k: (y, x) for k, (x, y) in self.told(b, a).items()}
            | {k: v for k, v in self.told(a, b).items() if k.startswith("Line")},
        )
