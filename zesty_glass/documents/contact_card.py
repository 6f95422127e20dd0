"""A customer's contact card (vCard) read: name, telephone, e-mail and place.

Source: RFC 6350 (2011), and what earlier versions wrote.
"""

from __future__ import annotations

import quopri
import re

from icalendar.parser import Contentlines

from ..core.errors import RuleError
from ..core.record import record
from .incoming import text_of

LARGEST_BYTES = 1_000_000  # a card may carry a portrait
MOST_CHARACTERS = 200


@record
class ContactCard:
    """Who a card is of; what it does not say is empty."""

    name: str
    phone: str = ""
    email: str = ""
    place: str = ""


_Line = tuple[str, dict[str, str], str]


def _refused(code: str, what: str, remedy: str) -> RuleError:
    return RuleError(f"contact.{code}", what, "file", remedy)


def _unfolded(text: str) -> str:
    """Soft line breaks of quoted-printable, which version 2.1 has, taken out."""
    return re.sub(r"=\r?\n[ \t]?(?=\S)", "", text) if "QUOTED-PRINTABLE" in text.upper() else text


def _lines(text: str) -> list[_Line]:
    out = []
    for line in Contentlines.from_ical(_unfolded(text)):  # type: ignore[no-untyped-call]
        if not line:
            continue
        try:
            name, params, value = line.parts()
        except ValueError:
            continue  # a line of another program’s own
        said = {k.upper(): str(v).upper() for k, v in params.items()}
        out.append((name.rpartition(".")[2].upper(), said, _plain(said, value)))
    return out


def _plain(params: dict[str, str], value: str) -> str:
    if params.get("ENCODING") != "QUOTED-PRINTABLE":
        return value
    return quopri.decodestring(value.encode()).decode("utf-8", "replace")


def _parts(value: str) -> list[str]:
    """The parts of a structured value, between semicolons that are not escaped."""
    return [_words(p) for p in re.split(r"(?<!\\);", value)]


def _words(text: str) -> str:
    """Escapes and line breaks taken out, and what no line of a form holds."""
    said = re.sub(r"\\([,;\\])", r"\1", text.replace("\\n", " ").replace("\\N", " "))
    return " ".join("".join(c if c.isprintable() else " " for c in said).split())


def _named(lines: list[_Line]) -> str:
    for name, _, value in lines:
        if name == "FN" and _words(value):
            return _words(value)
    for name, _, value in lines:
        if name == "N":
            family, given, *_ = [*_parts(value), "", ""]
            return f"{given} {family}".strip()
    return ""


def _preferred(lines: list[_Line], wanted: str) -> str:
    """The value that a card prefers, a mobile number before others; else its first."""
    found = [(params, _words(v)) for name, params, v in lines if name == wanted and _words(v)]

    ranks = (("PREF", 0), ("CELL", 1), ("FAX", 3))

    def rank(params: dict[str, str]) -> int:
        kinds = params.get("TYPE", "") + " ".join(params)
        return next((at for word, at in ranks if word in kinds), 2)

    best = min(found, key=lambda x: rank(x[0]), default=({}, ""))[1]
    return re.sub(r"^(tel|mailto):", "", best, flags=re.IGNORECASE)


def _place(lines: list[_Line]) -> str:
    for name, _, value in lines:
        if name == "ADR":
            _, extended, street, town, *_ = [*_parts(value), "", "", "", ""]
            return ", ".join(p for p in (street, extended, town) if p)
    return ""


def read_card(data: bytes) -> ContactCard:
    """A contact card as it was exported by a telephone or a mail program.

    Raises:
        RuleError: ``contact.too_large``, not UTF-8, no card, several cards, no name, too long.
    """
    text = text_of(data, LARGEST_BYTES, "contact")
    if "BEGIN:VCARD" not in text.upper():
        raise _refused("form", "This is no contact card.", "Share the contact as a .vcf file.")
    try:
        lines = _lines(text)
    except (ValueError, LookupError) as e:
        raise _refused(
            "form", "This contact card cannot be read.", "Share the contact once more."
        ) from e
    if sum(name == "BEGIN" and value.upper() == "VCARD" for name, _, value in lines) > 1:
        raise _refused("several", "The file holds several people.", "Share one contact alone.")
    card = ContactCard(
        name=_named(lines),
        phone=_preferred(lines, "TEL"),
        email=_preferred(lines, "EMAIL"),
        place=_place(lines),
    )
    if not card.name:
        raise _refused("name", "The card names nobody.", "Type the name.")
    for what in (card.name, card.phone, card.email, card.place):
        if len(what) > MOST_CHARACTERS:
            raise _refused(
                "long", f"“{what[:30]} …” is too long for a form.", "Shorten it on the card."
            )
    return card
