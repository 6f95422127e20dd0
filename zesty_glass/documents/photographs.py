"""Pictures and certificates as they come from outside: looked at, made small, and rid of what they
say besides.

A photograph carries where and when it was taken and with what. It is drawn anew at the size of a
screen, the right way up, and nothing of that is kept.
"""

from __future__ import annotations

import warnings
from dataclasses import dataclass
from io import BytesIO

from PIL import Image, ImageOps, UnidentifiedImageError

from ..core.errors import RuleError

MOST_BYTES = 6_000_000  # [bytes] as sent
MOST_PIXELS = 64_000_000  # [px] what today's telephones make; more is a trap
LONGEST_SIDE = 1600  # [px] as kept
QUALITY = 80  # of JPEG, 1 to 95
FORMS = ("JPEG", "PNG", "WEBP")
PDF_BEGINS, PDF_ENDS = b"%PDF-", b"%%EOF"


@dataclass(frozen=True, slots=True)
class Picture:
    """A picture as it is kept: JPEG, its sides in pixels."""

    data: bytes
    width: int
    height: int


def _bounded(raw: bytes, where: str) -> None:
    if not raw:
        raise RuleError("file.empty", "This file is empty.", where, "Take or choose it again.")
    if len(raw) > MOST_BYTES:
        raise RuleError(
            "file.large",
            f"This file has {len(raw) / 1e6:.1f} MB.",
            where,
            f"At most {MOST_BYTES // 1_000_000} MB are taken. Use a smaller one.",
        )


def _unreadable() -> RuleError:
    return RuleError(
        "picture.unreadable",
        "This is no picture that can be opened.",
        "picture",
        "Use a photograph as JPEG, PNG or WebP.",
    )


def picture(raw: bytes) -> Picture:
    """A photograph made small, upright, and without what it says of place, time and camera.

    Raises:
        RuleError: empty, over ``MOST_BYTES`` [bytes] or ``MOST_PIXELS`` [px], cut off, or none.
    """
    _bounded(raw, "picture")
    try:
        with warnings.catch_warnings(action="ignore"):
            image = Image.open(BytesIO(raw), formats=FORMS)
            if image.width * image.height > MOST_PIXELS:
                raise RuleError(
                    "picture.pixels",
                    f"This picture has {image.width} × {image.height} pixels.",
                    "picture",
                    f"At most {MOST_PIXELS // 1_000_000} million are taken.",
                )
            image.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))  # a JPEG is opened small already
            upright = ImageOps.exif_transpose(image)
            small = _on_white(upright)
            small.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    except RuleError:
        raise
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        raise _unreadable() from None
    out = BytesIO()
    small.save(out, "JPEG", quality=QUALITY, optimize=True)
    return Picture(data=out.getvalue(), width=small.width, height=small.height)


def _on_white(image: Image.Image) -> Image.Image:
    """A picture in three colors; what was see-through is white."""
    if "A" not in image.getbands() and "transparency" not in image.info:
        return image.convert("RGB")
    layer = image.convert("RGBA")
    white = Image.new("RGBA", layer.size, "white")
    return Image.alpha_composite(white, layer).convert("RGB")


def certificate(raw: bytes) -> tuple[bytes, str]:
    """A certificate's document and its media type: a PDF as it is, a photograph made small.

    Raises:
        RuleError: neither of the two, empty, or too large.
    """
    _bounded(raw, "document")
    if raw[:5] != PDF_BEGINS:
        return picture(raw).data, "image/jpeg"
    if PDF_ENDS not in raw[-2048:]:
        raise RuleError(
            "certificate.cut",
            "This PDF has no end.",
            "document",
            "It was cut off on its way. Fetch it again and attach that.",
        )
    return raw, "application/pdf"
