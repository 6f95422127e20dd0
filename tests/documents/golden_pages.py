"""Pages of a proposal as pictures, held against golden ones; run as a program it draws those
anew.
"""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import pypdfium2
from PIL import Image, ImageChops, ImageFilter, ImageStat

from tests.documents.test_paper import AT, LINK, offered, proposal
from zesty_glass.demo.homes import home_1, home_7
from zesty_glass.documents import pdf

FOLDER = Path(__file__).with_name("golden")
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
    offer = offered(visit, recommended)
    return pdf.proposal_pdf(offer, proposal(offer), "good", LINK)


def pages(data: bytes) -> list[Image.Image]:
    """Every page of a document, small and gray."""
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
