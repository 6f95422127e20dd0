"""What is done to the page once, when it is built: its texts compressed, so that the server only
hands them out, and the licenses of its fonts put beside those of its code.
"""

from __future__ import annotations

import gzip
import sys
from pathlib import Path

PACKED = (".js", ".css", ".svg")


def pack(folder: Path) -> int:
    """Write ``.br`` (Brotli) and ``.gz`` beside every text of a folder; how many there were."""
    import brotli

    texts = [p for p in folder.iterdir() if p.suffix in PACKED]
    for p in texts:
        data = p.read_bytes()
        p.with_name(p.name + ".br").write_bytes(brotli.compress(data, quality=11))
        p.with_name(p.name + ".gz").write_bytes(gzip.compress(data, 9, mtime=0))
    return len(texts)


def license_fonts(page: Path, fonts: Path) -> None:
    """Add the licenses of the fonts to the page's notices."""
    notices = page / "licenses.txt"
    said = [notices.read_text(), *(p.read_text() for p in sorted(fonts.glob("*LICENSE.txt")))]
    notices.write_text("\n\n## A font of the page\n\n".join(said))


if __name__ == "__main__":
    built, sources = map(Path, sys.argv[1:])
    pack(built / "assets")
    license_fonts(built, sources / "fonts")
