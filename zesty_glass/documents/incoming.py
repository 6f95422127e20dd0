"""Text files that come in: bounded and checked before anybody reads them."""

from __future__ import annotations

import json
from typing import Any

from ..core.errors import RuleError


def text_of(
    data: bytes,
    largest: int,
    area: str,
    not_text: str = "encoding",
    remedy: str = "Save it as UTF-8.",
) -> str:
    """The text of a file.

    Args:
        largest: bytes taken at most; area: what the codes of its errors begin with.

    Raises:
        RuleError: ``area.too_large``, or not UTF-8.
    """
    if len(data) > largest:
        raise RuleError(
            f"{area}.too_large",
            f"The file has {len(data) / 1e6:.1f} MB; at most {largest / 1e6:.0f} MB is taken.",
            "file",
            "Is it the right file?",
        )
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as e:
        raise RuleError(
            f"{area}.{not_text}", f"The file is not UTF-8 text (byte {e.start}).", "file", remedy
        ) from e


def json_of(text: str, **how: Any) -> Any:
    """What JSON text says.

    Raises:
        ValueError: it is not JSON, is nested too deeply, or holds a number of thousands of digits.
    """
    try:
        return json.loads(text, **how)
    except (json.JSONDecodeError, RuleError):
        raise
    except RecursionError as e:
        raise ValueError("it is nested too deeply") from e
    except ValueError as e:
        raise ValueError("it holds a number of thousands of digits") from e
