"""A text as a square picture of dots that a camera reads (QR code, ISO/IEC 18004)."""

from __future__ import annotations

import io

import segno


def code_picture(text: str, scale: int = 4) -> str:
    """The picture as SVG, dark on white whatever is around it."""
    out = io.BytesIO()
    segno.make(text, error="m", micro=False).save(
        out, kind="svg", scale=scale, border=4, xmldecl=False, svgns=True, light="#fff"
    )
    return out.getvalue().decode()
