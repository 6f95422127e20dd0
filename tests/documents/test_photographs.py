"""Photographs are made small, upright and silent; what is none is refused with its reason."""

import unittest
from io import BytesIO

from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from zesty_glass.core.errors import RuleError
from zesty_glass.documents import photographs
from zesty_glass.documents.photographs import certificate, picture

ORIENTATION, MAKE, GPS = 0x0112, 0x010F, 0x8825


def photo(width=40, height=20, form="JPEG", colour="red", **exif):
    image, out = Image.new("RGB", (width, height), colour), BytesIO()
    marks = Image.Exif()
    for tag, value in exif.get("marks", {}).items():
        marks[tag] = value
    image.save(out, form, **({"exif": marks} if form == "JPEG" else {}))
    return out.getvalue()


def opened(data):
    return Image.open(BytesIO(data))


class Pictures(unittest.TestCase):
    def refused(self, raw, code):
        with self.assertRaises(RuleError) as e:
            picture(raw)
        self.assertEqual(e.exception.code, code)
        self.assertTrue(e.exception.remedy)

    def test_a_large_one_fits_a_screen_and_keeps_its_shape(self):
        made = picture(photo(4000, 3000))
        self.assertEqual((made.width, made.height), (1600, 1200))
        self.assertEqual(opened(made.data).size, (1600, 1200))

    def test_a_small_one_is_not_blown_up(self):
        self.assertEqual(picture(photo(40, 20)).width, 40)

    def test_it_stands_upright(self):
        made = picture(photo(40, 20, marks={ORIENTATION: 6}))
        self.assertEqual((made.width, made.height), (20, 40))

    def test_place_and_camera_are_not_kept(self):
        raw = photo(marks={MAKE: "A camera of somebody", GPS: {1: "N", 2: (51.0, 30.0, 0.0)}})
        self.assertIn(b"A camera of somebody", raw)
        kept = picture(raw).data
        self.assertNotIn(b"A camera of somebody", kept)
        self.assertEqual(dict(opened(kept).getexif()), {})

    def test_what_is_see_through_is_white(self):
        out = BytesIO()
        Image.new("RGBA", (8, 8), (0, 0, 0, 0)).save(out, "PNG")
        self.assertEqual(opened(picture(out.getvalue()).data).getpixel((4, 4)), (255, 255, 255))

    def test_forms(self):
        for form in ("JPEG", "PNG", "WEBP"):
            self.assertEqual(opened(picture(photo(form=form)).data).format, "JPEG")
        self.refused(photo(form="GIF"), "picture.unreadable")
        self.refused(photo(form="TIFF"), "picture.unreadable")

    def test_what_is_none(self):
        self.refused(b"", "file.empty")
        self.refused(b"not a picture", "picture.unreadable")
        self.refused(b"\xff\xd8\xff\xe0 a beginning and no more", "picture.unreadable")
        self.refused(b"x" * (photographs.MOST_BYTES + 1), "file.large")
        self.refused(photo(200, 200)[:300], "picture.unreadable")

    def test_more_pixels_than_a_telephone_makes(self):
        head = BytesIO()
        Image.new("1", (9000, 9000)).save(head, "PNG")  # 81 million in a few kilobytes
        self.assertLess(len(head.getvalue()), 200_000)
        self.refused(head.getvalue(), "picture.pixels")

    @settings(max_examples=40)
    @given(st.integers(0, 700), st.binary(min_size=1, max_size=8))
    def test_damage_anywhere_is_a_picture_or_a_reason(self, at, other):
        raw = photo(60, 60)
        try:
            made = picture(raw[:at] + other + raw[at + len(other) :])
        except RuleError as e:
            self.assertIn(e.code, ("picture.unreadable", "picture.pixels"))
        else:
            opened(made.data).load()


class Certificates(unittest.TestCase):
    def test_a_pdf_stays_as_it_is(self):
        raw = b"%PDF-1.7\nwhatever\n%%EOF\n"
        self.assertEqual(certificate(raw), (raw, "application/pdf"))

    def test_a_photograph_of_one(self):
        self.assertEqual(certificate(photo())[1], "image/jpeg")

    def test_cut_off(self):
        with self.assertRaises(RuleError) as e:
            certificate(b"%PDF-1.7\nwhatever")
        self.assertEqual(e.exception.code, "certificate.cut")

    def test_a_page_of_the_web_is_none(self):
        with self.assertRaises(RuleError) as e:
            certificate(b"<html><script>alert(1)</script></html>")
        self.assertEqual(e.exception.code, "picture.unreadable")
