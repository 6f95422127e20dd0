"""Contact cards as telephones and mail programs write them, and what is none."""

import unittest
from contextlib import suppress

from hypothesis import given
from hypothesis import strategies as st

from zesty_glass.core.errors import RuleError
from zesty_glass.documents.contact_card import LARGEST_BYTES, ContactCard, read_card

CARD = """BEGIN:VCARD\r
VERSION:3.0\r
N:Marrash;Ottoline;;;\r
FN:Ottoline Mar\r
 rash\r
TEL;TYPE=HOME,FAX:+1 555 0100\r
TEL;TYPE=HOME:+1 555 0101\r
TEL;TYPE=CELL:+1 555 0102\r
item1.EMAIL;TYPE=INTERNET:ottoline@marlend.example\r
ADR;TYPE=HOME:;Rear door;4 Flintlock Row\\, left;Marl End;;12345;\r
PHOTO;ENCODING=b;TYPE=JPEG:AAAA\r
 BBBB\r
END:VCARD\r
"""


def card(*lines: str) -> bytes:
    return "\r\n".join(("BEGIN:VCARD", *lines, "END:VCARD", "")).encode()


class Read(unittest.TestCase):
    def test_a_whole_card(self):
        self.assertEqual(
            read_card(CARD.encode()),
            ContactCard(
                name="Ottoline Marrash",
                phone="+1 555 0102",
                email="ottoline@marlend.example",
                place="4 Flintlock Row, left, Rear door, Marl End",
            ),
        )

    def test_a_preferred_number_goes_before_a_mobile_one(self):
        got = read_card(card("FN:A B", "TEL;TYPE=CELL:1", "TEL;TYPE=HOME,PREF:2"))
        self.assertEqual(got.phone, "2")

    def test_a_number_as_an_address(self):
        self.assertEqual(read_card(card("FN:A", "TEL;VALUE=uri:tel:+1-555")).phone, "+1-555")

    def test_a_name_by_its_parts(self):
        self.assertEqual(read_card(card("N:Quillet;Fenna;;;")).name, "Fenna Quillet")
        self.assertEqual(read_card(card("FN:", "N:Quillet;;;;")).name, "Quillet")

    def test_an_older_card_in_quoted_printable(self):
        got = read_card(
            card(
                "VERSION:2.1",
                "N;CHARSET=UTF-8;ENCODING=QUOTED-PRINTABLE:Br=C3=BC=",
                "ckner;Ada;;;",
            )
        )
        self.assertEqual(got.name, "Ada Brückner")

    def test_line_breaks_and_signs_that_no_form_holds(self):
        self.assertEqual(read_card(card("FN:Ada\\nBrook\x07man")).name, "Ada Brook man")


class Refused(unittest.TestCase):
    def test_with_what_to_do(self):
        for code, data in (
            ("contact.form", b"name,phone\nA,1"),
            ("contact.name", card("TEL:1")),
            ("contact.several", card("FN:A") + card("FN:B")),
            ("contact.long", card("FN:" + "A" * 201)),
            ("contact.encoding", b"BEGIN:VCARD\r\nFN:\xff\xfe\r\nEND:VCARD"),
            ("contact.too_large", b"x" * (LARGEST_BYTES + 1)),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                read_card(data)
            self.assertEqual(e.exception.code, code)
            self.assertTrue(e.exception.remedy)

    @given(st.binary(max_size=300))
    def test_any_bytes_are_a_card_or_are_refused(self, data):
        with suppress(RuleError):
            read_card(b"BEGIN:VCARD\r\n" + data + b"\r\nEND:VCARD")

    @given(st.text(max_size=300))
    def test_any_text_too(self, text):
        with suppress(RuleError):
            self.assertTrue(read_card(card(text, "FN:A")).name)
