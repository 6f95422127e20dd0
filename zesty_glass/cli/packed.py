"""Compress the page's texts once, when it is built: the server only hands them out."""

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


if __name__ == "__main__":
    pack(Path(sys.argv[1]))
