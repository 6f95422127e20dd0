"""The customer's complaints: what each may come from, and the next test when nothing
explains it.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from ..record import Words, record


@record
class Complaint:
    """A complaint in the customer's own words, with what kind of sign it is."""

    id: str
    sign: str
    words: Words


@record
class Sign:
    """A kind of complaint: analytes whose findings explain it and the next test."""

    id: str
    name: str
    next: str


#: sign -> tests that look for its causes, in their order: analytes, "cups" for the three cups
TESTS: dict[str, tuple[str, ...]] = {
    "white_crust": ("hardness",),
    "dry_skin": ("hardness", "chlorine_free"),
    "orange_streaks": ("iron",),
    "black_stains": ("manganese",),
    "bleach_smell": ("chlorine_free", "chlorine_total"),
    "tea_colour": ("cups", "iron", "tannin"),
    "blue_green": ("ph", "copper"),
    "egg_smell": ("hydrogen_sulfide",),
    "egg_smell_unsure": ("hydrogen_sulfide",),
    "metal_taste": ("ph", "copper", "iron"),
    "taste": ("chlorine_free", "chlorine_total", "tds"),
    "haze": ("turbidity",),
    "solids": ("tds",),
}
ALL_DONE = (
    "its usual tests were done and do not explain it: ask where, when and at which tap, then a"
    " laboratory"
)


def next_test(sign: str, done: frozenset[str], names: Mapping[str, str]) -> str:
    """The next test for a complaint: one that was not done yet.

    Args:
        done: analytes tested, and "cups"; names: what to do for each analyte.
    """
    wanted = TESTS.get(sign, ())
    if not wanted:
        return SIGNS[sign].next if sign in SIGNS else SIGNS["other"].next
    left = [t for t in wanted if t not in done]
    if not left:
        return ALL_DONE
    return "the three cups" if left[0] == "cups" else names[left[0]]


SIGNS = MappingProxyType(
    {
        s.id: s
        for s in (
            Sign(id="white_crust", name="White crust", next="hardness by drops"),
            Sign(
                id="dry_skin", name="Dry skin, soap that will not lather", next="hardness by drops"
            ),
            Sign(id="orange_streaks", name="Orange streaks", next="iron kit"),
            Sign(id="black_stains", name="Black stains", next="manganese kit or laboratory"),
            Sign(id="bleach_smell", name="Smell of bleach", next="free and total chlorine"),
            Sign(id="tea_colour", name="Tea color", next="the three cups, then the tannin kit"),
            Sign(
                id="blue_green",
                name="Blue-green stains",
                next="pH by meter, then copper from a first-draw sample",
            ),
            Sign(
                id="egg_smell",
                name="Smell of eggs, all taps",
                next="hydrogen sulfide on site, at once",
            ),
            Sign(
                id="egg_smell_hot",
                name="Smell of eggs, hot tap only",
                next="compare hot and cold side by side",
            ),
            Sign(
                id="egg_smell_unsure",
                name="Smell of eggs, not known at which taps",
                next="compare hot and cold side by side",
            ),
            Sign(
                id="earth_smell",
                name="Smell of earth or must",
                next="smell hot and cold, after flushing; a surface source asks its authority",
            ),
            Sign(
                id="metal_taste",
                name="Taste of metal",
                next="pH by meter, then copper from a first-draw sample",
            ),
            Sign(
                id="taste",
                name="Dull or odd taste",
                next="free and total chlorine, then TDS by meter",
            ),
            Sign(id="haze", name="Haze", next="turbidity, and watch how it clears"),
            Sign(
                id="slime",
                name="Slime, or an oily film that breaks into plates",
                next="laboratory: iron bacteria",
            ),
            Sign(
                id="low_pressure",
                name="Weak shower",
                next="flow by bucket, static and running pressure",
            ),
            Sign(
                id="flood",
                name="The well stood under water",
                next="laboratory: coliform bacteria, after the well was disinfected",
            ),
            Sign(
                id="bloom",
                name="The lake is green: a bloom",
                next="laboratory: cyanotoxins; the health authority",
            ),
            Sign(id="solids", name="Told it is “full of solids”", next="TDS by meter"),
            Sign(id="other", name="Something else", next="ask where, when and which tap"),
        )
    }
)
