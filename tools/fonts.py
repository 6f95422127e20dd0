"""``python -m tools.fonts``: make the page's fonts anew from their npm packages.

Only the letters, weights and optical sizes that the page uses are kept, so that the first look at
it is quick. The licence of both (SIL OFL 1.1, no reserved name) allows it; it stands beside them.
"""

from __future__ import annotations

import shutil
import sys
from pathlib import Path

from zesty_glass.cli.machine import WEB
from zesty_glass.cli.say import guarded, step

#: Latin, the signs of units and sums, quotation marks and arrows [Unicode ranges]
LETTERS = (
    *range(0x20, 0x7F),
    *range(0xA0, 0x100),
    *(0x131, 0x152, 0x153, 0x2013, 0x2014, 0x2018, 0x2019, 0x201A, 0x201C, 0x201D, 0x201E),
    *(0x2022, 0x2026, 0x2032, 0x2033, 0x2082, 0x2190, 0x2191, 0x2192, 0x2193),
    *(0x2212, 0x2260, 0x2264, 0x2265),
)
FEATURES = ("kern", "tnum", "lnum", "liga", "ccmp", "mark", "locl")
PACKAGES = WEB / "node_modules" / "@fontsource-variable"
OUT = WEB / "src" / "fonts"
#: font -> file of its package, and the axes that are kept
FONTS: dict[str, tuple[str, dict[str, tuple[float, float]]]] = {
    "display.woff2": (
        "bricolage-grotesque/files/bricolage-grotesque-latin-opsz-normal.woff2",
        {"opsz": (40, 96), "wght": (500, 800)},
    ),
    "text.woff2": (
        "instrument-sans/files/instrument-sans-latin-wght-normal.woff2",
        {"wght": (400, 700)},
    ),
}


def made(source: Path, axes: dict[str, tuple[float, float]], to: Path) -> int:
    """Write a font with these letters and axes alone; its size [bytes]."""
    from fontTools.subset import Options, Subsetter
    from fontTools.ttLib import TTFont
    from fontTools.varLib import instancer

    font = instancer.instantiateVariableFont(TTFont(source), axes)
    options = Options()
    options.layout_features = list(FEATURES)
    options.hinting = False
    subsetter = Subsetter(options)
    subsetter.populate(unicodes=LETTERS)
    subsetter.subset(font)
    font.flavor = "woff2"
    font.save(to)
    return to.stat().st_size


def main(_: list[str]) -> int:
    """Make both, with their licences beside them."""
    OUT.mkdir(exist_ok=True)
    for name, (file, axes) in FONTS.items():
        size = made(PACKAGES / file, axes, OUT / name)
        licence = PACKAGES / file.split("/")[0] / "LICENSE"
        shutil.copyfile(licence, OUT / f"{name.removesuffix('.woff2')}-LICENSE.txt")
        step(f"{name}: {size / 1000:.1f} kB")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
