"""All that a customer reads of a home: nothing left over, the trade's words, easy to read, whole in
Spanish and in metric units.
"""

import re
import unittest
from dataclasses import replace
from functools import cache

import textstat

from tools.say import document, home, offer
from zesty_glass.messages.in_language import names_of

HOMES = (1, 2, 3, 4, 5, 6, 7, 8, 10, 13)
READ = ("The proposal", "The card")
#: words that a customer or the trade does not use
BANNED = re.compile(
    r"\b(renew(s|ed|al)?|dissolved matter|ways out|astride|past its life|rented to own|struck"
    r"|the household|tonight|wished|not established|colour|grey|litres?|neutraliser)\b",
    re.IGNORECASE,
)
ENGLISH = re.compile(
    r"\b(the|and|of|is|with|for|it|to|by|not|at|from|are|its|every|after|before)\b", re.IGNORECASE
)
US = re.compile(r"\d (gal|gpm|psi|lb|gpg|ft³|in of)\b")
PROSE = re.compile(r"[^|]{30,}\.")


@cache
def said(n, language="en", units="us"):
    """Each text of a home's proposal and card without names and quotes, and as it stands."""
    visit = home(n)
    visit = replace(visit, settings=replace(visit.settings, units=units))
    known = names_of(offer(visit)) | {c.words for c in visit.complaints}
    known |= {o.name for o in visit.options} | {i.name for i in visit.catalogue}
    own = sorted(known | {p.name for i in visit.catalogue for p in i.consumables}, key=len)
    out = []
    for part, text in document(visit, language):
        if part in READ:
            bare = re.sub("“[^”]*”", "", text)
            for name in reversed(own):
                bare = bare.replace(name, "")
            out.append((bare, text))
    return out


class English(unittest.TestCase):
    def test_nothing_is_left_over(self):
        for n in HOMES:
            for _, text in said(n):
                self.assertNotRegex(text, r"[{}]|\bNone\b(?!:)|\.\.|[^|]  | \.")

    def test_words_that_nobody_says(self):
        for n in HOMES:
            for bare, _ in said(n):
                self.assertNotRegex(bare, BANNED)

    def test_it_reads_at_grade_8_and_below(self):
        for n in HOMES:
            prose = " ".join(t for _, t in said(n) if PROSE.fullmatch(t))
            self.assertLessEqual(textstat.flesch_kincaid_grade(prose), 8, f"home {n}")

    def test_sentences_are_short(self):
        for n in HOMES:
            prose = " ".join(t for _, t in said(n) if PROSE.fullmatch(t))
            lengths = [len(s.split()) for s in re.split(r"(?<=[.?!])\s", prose)]
            self.assertLessEqual(sum(lengths) / len(lengths), 14, f"home {n}")
            self.assertLessEqual(max(lengths), 40, f"home {n}")


class Elsewhere(unittest.TestCase):
    def test_no_english_is_left_in_spanish(self):
        for n in HOMES:
            for units in ("us", "metric"):
                for bare, text in said(n, "es", units):
                    self.assertNotRegex(bare, ENGLISH, f"home {n}, {units}: {text}")

    def test_no_us_unit_is_left_in_metric(self):
        both = re.compile(r"°dH|\(\d+ gpg\)")  # a valve may know grains alone
        for n in HOMES:
            for language in ("en", "es"):
                for bare, text in said(n, language, "metric"):
                    sold = re.search(r"\d (ft³|gal/d)", bare)  # a part’s size, as it is sold
                    if not both.search(bare) and not sold:
                        self.assertNotRegex(bare, US, f"home {n}, {language}: {text}")


if __name__ == "__main__":
    unittest.main()
