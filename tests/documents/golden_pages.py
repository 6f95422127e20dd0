"""Pages of a proposal as pictures, held against golden ones; run as a program it draws those
anew.
"""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, date, datetime
from pathlib import Path

import pypdfium2
from PIL import Image, ImageChops, ImageFilter, ImageStat

from zesty_glass.core.presenting.offer import make_offer
from zesty_glass.core.proposing.proposal import Proposal
from zesty_glass.demo.homes import home_1, home_7
from zesty_glass.documents import pdf

FOLDER = Path(__file__).with_name("golden")
AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
LINK = "https://water.example/p/" + "A" * 43
SCALE = 0.55  # of 72 dots an inch
BLUR = 1.5  # [dots] edges of letters move by less
#: what a page may differ by, in the mean and at most, of 255
MEAN, MOST = 1.0, 90


def proposals() -> dict[str, bytes]:
    """Proposals as they go out, by name: one of three lines, one that nothing is needed."""
    one, none = home_1(AT), home_7(AT)
    return {
        "three-lines": _paper(one, one.options[1].id),
        "nothing-needed": _paper(none, "today"),
    }


def _paper(visit, recommended: str) -> bytes:
    offer = make_offer(
        visit,
        number="261120-AB12",
        revision=1,
        created_at=AT,
        valid_until=date(2026, 12, 20),
        recommended=recommended,
        reasons="",
    )
    proposal = Proposal(
        id="x",
        number=offer.number,
        recommended=offer.recommended,
        reasons=offer.reasons,
        horizon=offer.horizon,
        created_at=AT,
        valid_until=offer.valid_until,
        snapshot="{}",
        digest="0" * 64,
    )
    return pdf.proposal_pdf(offer, proposal, "good", LINK)


def pages(data: bytes) -> list[Image.Image]:
    """Every page of a document, small and grey."""
    document = pypdfium2.PdfDocument(data)
    try:
        return [p.render(scale=SCALE, grayscale=True).to_pil().convert("L") for p in document]
    finally:
        document.close()


@dataclass(frozen=True)
class Apart:
    """How far two pages are apart, of 255."""

    mean: float
    most: float

    @property
    def alike(self) -> bool:
        return self.mean <= MEAN and self.most <= MOST


def apart(a: Image.Image, b: Image.Image) -> Apart:
    """Two pages held against each other, slightly blurred."""
    if a.size != b.size:
        return Apart(255, 255)
    soft = [x.filter(ImageFilter.GaussianBlur(BLUR)) for x in (a, b)]
    difference = ImageChops.difference(*soft)
    return Apart(ImageStat.Stat(difference).mean[0], difference.getextrema()[1])


def golden(name: str) -> list[Image.Image]:
    """Golden pages of a proposal, in order."""
    return [Image.open(p).convert("L") for p in sorted(FOLDER.glob(f"{name}-*.png"))]


def main() -> None:
    """Draw the golden pages anew; look at each before it is kept."""
    for old in FOLDER.glob("*.png"):
        old.unlink()
    for name, data in proposals().items():
        for n, page in enumerate(pages(data), 1):
            page.quantize(16).save(FOLDER / f"{name}-{n:02}.png", optimize=True)


if __name__ == "__main__":
    main()
