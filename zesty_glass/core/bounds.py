"""How large anything may be that comes in: one table of numbers, texts and lists, by the name of
the field.

A record declares its fields; this module says how far each may go, and every edge (form, file,
interface for programs) enforces it and says it in its schema. The bounds are no rules of the job:
they are what no home, catalog or person needs more than, so that nothing that is stored costs
time or memory without end.
"""

from __future__ import annotations

from datetime import UTC, date, datetime
from typing import Any

#: what holds for a field that the tables below do not name
TEXT_MOST = 10_000  # [characters]
LIST_MOST = 10_000  # [entries]
NUMBER_MOST = 1e12
MONEY_MOST = 1_000_000
INT_MOST = 2_147_483_647  # what a column of the database holds
FIRST_DAY, LAST_DAY = date(1970, 1, 1), date(2199, 12, 31)

_SHORT = 200
#: longest text of a field [characters]
TEXTS: dict[str, int] = {
    **dict.fromkeys(
        ("id", "code", "sample", "analyte", "unit", "basis", "after_item", "item", "key"),
        80,
    ),
    **dict.fromkeys(
        ("name", "place", "maker", "by", "phone", "email", "laboratory", "firm", "consultant"),
        _SHORT,
    ),
    **dict.fromkeys(("standard", "certifier", "certificate", "report_number", "size"), _SHORT),
    **dict.fromkeys(("after", "pipe_material", "service_line", "change_of_colour", "step"), _SHORT),
    **dict.fromkeys(("words", "struck_because", "because", "moved_because"), 1000),
    **dict.fromkeys(("note", "local_rules", "cancel_text", "reminder_text"), 4000),
    "currency": 4,
    "post_cutoff": 5,
    "laboratory_address": 500,
    "device": 80,
    "reasons": 8000,
    "text": 6000,
    "path": 60_001,
    "snapshot": 4_000_000,
}

_MONEY = (0, MONEY_MOST)
#: least and most of a number; prices in the firm's currency, other units as in the record that has
#: the field
NUMBERS: dict[str, tuple[float, float]] = {
    **dict.fromkeys(
        ("price", "installation", "service_year", "down", "monthly", "deposit"), _MONEY
    ),
    **dict.fromkeys(("bottled_month", "soap_month"), (0, 100_000)),
    **dict.fromkeys(("water_price", "sewer_price"), (0, 10_000)),
    **dict.fromkeys(("electricity", "salt_bag", "potassium_bag", "salt_delivery"), (0, 10_000)),
    **dict.fromkeys(("drain_price", "outlet_price"), (0, 100_000)),
    "capacity_gal": (0.1, 1e9),
    "months": (0.01, 1200),
    "months_private": (0.01, 1200),
    "flush_gal": (0, 1000),
    "minutes": (0, 10_000),
    "horizon": (1, 30),
    "valid_days": (1, 730),
    "keep_years": (0, 100),
    "days": (-1_000_000, 1_000_000),
    "version": (0, INT_MOST),
    "position": (0, INT_MOST),
    "revision": (1, 10_000),
    "year": (1900, 2199),
    "drops": (0, 10_000),
    "pad": (0, 100),
    "dilution": (0, 10_000),
    "multiplier": (0, 100),
    "stood_minutes": (0, 100_000),
    "hours_to_count": (0, 100_000),
    "volume_gal": (0, 10_000),
    "temperature_c": (-100, 1000),
    "check_every_days": (1, 10_000),
    "wait_s": (0, 100_000),
    "sample_ml": (0, 100_000),
    "share": (0, 1),
    "spares_years": (0, 100),
    "nitrate_n": (0, 100_000),
    "flushed_gal": (0, 1000),
    "life_factor": (0.001, 100),
}

#: most entries of a list
LISTS: dict[str, int] = {
    **dict.fromkeys(("displays", "seconds"), 12),
    **dict.fromkeys(
        ("complaints", "tasters", "wishes", "goals", "in_place", "keeps", "claims"), 20
    ),
    **dict.fromkeys(("assumptions_off", "signs", "steps_done"), 60),
    **dict.fromkeys(("consumables", "needs", "parts", "stages", "samples"), 60),
    **dict.fromkeys(("effects", "uvt_gpm", "drop_curve"), 200),
    **dict.fromkeys(("limits", "bands", "readings", "catalogue", "demonstrations"), 1000),
    **dict.fromkeys(("lab_samples", "options", "skipped", "corrected"), 100),
    "proposals": 200,
    "areas": 200,
}

#: no field holds the character that ends a text in some programs, and none stands alone
NO_NUL = "^[^\\u0000]*$"


def _bounded(schema: dict[str, Any], name: str) -> None:
    """Tighten one field's schema in place, through what may be missing and what has a default."""
    kind = schema.get("type")
    if kind in ("nullable", "default"):
        _bounded(schema["schema"], name)
    elif kind == "str":
        schema.setdefault("max_length", TEXTS.get(name, TEXT_MOST))
        schema.setdefault("pattern", NO_NUL)
    elif kind in ("float", "int", "decimal"):
        _bounded_number(schema, kind, name)
    elif kind in ("tuple", "list", "dict", "set", "frozenset"):
        schema.setdefault("max_length", LISTS.get(name, LIST_MOST))
        inner = (*schema.get("items_schema", ()),) if kind == "tuple" else ()
        for part in (*inner, *(schema[k] for k in ("keys_schema", "values_schema") if k in schema)):
            _bounded(part, "" if kind == "dict" else name)
        if kind in ("list", "set", "frozenset") and "items_schema" in schema:
            _bounded(schema["items_schema"], name)
    elif kind == "datetime":
        schema.setdefault("tz_constraint", "aware")
        schema.setdefault("ge", datetime(FIRST_DAY.year, 1, 1, tzinfo=UTC))
        schema.setdefault("le", datetime(LAST_DAY.year, 12, 31, tzinfo=UTC))
    elif kind == "date":
        schema.setdefault("ge", FIRST_DAY)
        schema.setdefault("le", LAST_DAY)


def _bounded_number(schema: dict[str, Any], kind: str, name: str) -> None:
    most = INT_MOST if kind == "int" else NUMBER_MOST
    low, high = NUMBERS.get(name, (-most, most))
    if kind == "int":
        low, high = int(low), int(high)
    if "gt" not in schema:
        schema.setdefault("ge", low)
    if "lt" not in schema:
        schema.setdefault("le", high)
    if kind == "decimal":
        schema.setdefault("max_digits", 80)


def bounded(schema: dict[str, Any]) -> None:
    """Tighten the schema of a record or a request body in place: every field by its name."""
    while schema.get("type") not in ("dataclass-args", "model-fields"):
        if "schema" not in schema:
            return
        schema = schema["schema"]
    fields = schema["fields"]
    named = fields.items() if isinstance(fields, dict) else ((f["name"], f) for f in fields)
    for name, field in named:
        _bounded(field["schema"], name)
