"""What a consultant sets on a stage of their line, beside the item's own figures: one table of keys
with their units and bounds, which the page's fields, the errors and the sizes read.
"""

from __future__ import annotations

from collections.abc import Mapping

from ..errors import RuleError
from ..record import record


@record
class Adjustable:
    """A setting of a stage.

    Args:
        key: in the option's ``overrides``; label, unit, hint: as it is asked.
        least, most: bounds [unit].
        where: fields of the item's figures with the value that they must have, "*" for any; the
            setting is not offered where one differs.
        yes: it is a yes or no; set is yes.
    """

    key: str
    label: str
    unit: str = ""
    least: float = 0.0
    most: float = 1.0
    hint: str = "empty: its own"
    where: tuple[tuple[str, str], ...] = ()
    yes: bool = False


def number_of(overrides: Mapping[str, float | str], key: str, default: float) -> float:
    """A setting as a number, or ``default``.

    Raises:
        RuleError: ``stage.setting``, for what is no number.
    """
    value = overrides.get(key, default)
    try:
        return float(value)
    except ValueError:
        raise RuleError(
            "stage.setting",
            f"“{value}” is no number.",
            f"overrides.{key}",
            "Type a number, or leave it empty.",
        ) from None


def set_to(setting: Adjustable, overrides: Mapping[str, float | str], default: float) -> float:
    """A setting within its bounds [its unit], or ``default`` where it is not set.

    Raises:
        RuleError: ``stage.setting``, for what is no number or outside its bounds.
    """
    if setting.key not in overrides:
        return default
    value = number_of(overrides, setting.key, default)
    if not setting.least <= value <= setting.most:
        raise RuleError(
            "stage.setting",
            f"{setting.label} {value:g} is outside {setting.least:g} to {setting.most:g}"
            f" {setting.unit}".rstrip()
            + ".",
            f"overrides.{setting.key}",
            "Type a number within, or leave it empty.",
        )
    return value


DOSE = Adjustable(key="dose_lb_ft3", label="Salt dose", unit="lb/ft³", least=3, most=20)
RENEW_CLOCK = Adjustable(
    key="clock_days",
    label="Clock, every",
    unit="days",
    least=1,
    most=30,
    where=(("control", "clock"),),
)
RESERVE = Adjustable(
    key="reserve_days",
    label="Kept back",
    unit="days",
    most=3,
    hint="empty: one day",
    where=(("control", "metered"),),
)
LIMITER = Adjustable(
    key="limiter_gpm",
    label="Fixed flow limiter",
    unit="gpm",
    least=0.25,
    most=100,
    hint="empty: none",
)
LAY_UP = Adjustable(
    key="lay_up_logged", label="Lamp off while nobody is there, each day logged", yes=True
)
CLOCK_OFF = Adjustable(
    key="clock_off_logged",
    label="Switched off while nobody is there, each day logged",
    yes=True,
)
BACKWASH = Adjustable(
    key="backwash_days",
    label="Backwash, every",
    unit="days",
    least=1,
    most=60,
    where=(("backwash_days", "*"),),
)
RENEWAL = Adjustable(key="regen_days", label="Regeneration, every", unit="days", least=1, most=30)
REFILL = Adjustable(
    key="refill_months",
    label="Topped up, every",
    unit="months",
    least=1,
    most=60,
    hint="empty: at a third",
    where=(("style", "upflow|backwashing"),),
)
HOUR = Adjustable(
    key="clock_hour",
    label="Rinses at",
    unit="h, of 24",
    most=23,
    hint="empty: from 1 on",
)
