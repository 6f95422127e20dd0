"""What readings over time say of a stage: when a membrane, a carbon or a softener asks for work."""

from __future__ import annotations

from ..errors import RuleError
from ..record import record
from ..units import MG_L_PER_GPG

LEAST_REJECTION = 0.75  # [0 to 1] below it a membrane is done, whatever it began with
SHARE_OF_FIRST = 0.80  # [0 to 1] of the first reading: trade practice (2024)
CHLORINE_BEHIND_CARBON = 0.1  # [mg/L]
HARDNESS_BEHIND_SOFTENER = 1.0 * MG_L_PER_GPG  # [mg/L as CaCO3]


@record
class Alarm:
    """A reading that asks for work: what it is, and what to do, likeliest first."""

    id: str
    sentence: str
    try_first: tuple[str, ...]


def rejection(feed: float, permeate: float) -> float:
    """Share of dissolved solids held back [0 to 1].

    Args:
        feed, permeate: TDS on the same day and meter [mg/L].

    Raises:
        RuleError: ``rejection.feed``, without any in the feed.

    Source: by definition.

    >>> rejection(400, 60)
    0.85
    """
    if feed <= 0:
        raise RuleError(
            "rejection.feed", "The feed reads nothing.", "feed", "Measure the feed, same meter."
        )
    return 1 - permeate / feed


def rejection_alarm(first: float) -> float:
    """The rejection [0 to 1] below which a membrane is changed: the larger of 80 % of its first
    reading and 75 %.

    Source: trade practice (2024).

    >>> rejection_alarm(0.96), rejection_alarm(0.90)
    (0.768, 0.75)
    """
    return max(SHARE_OF_FIRST * first, LEAST_REJECTION)


def membrane(first: float, now: float) -> Alarm | None:
    """Whether a membrane asks to be changed, by its rejection at first and now [0 to 1].

    >>> membrane(0.96, 0.77), membrane(0.96, 0.76).id  # 0.8 x 0.96 = 0.768
    (None, 'membrane.rejection')
    """
    least = rejection_alarm(first)
    if now >= least:
        return None
    return Alarm(
        id="membrane.rejection",
        sentence=f"Holds back {now:.0%}; it began with {first:.0%}, and {least:.0%} is the least.",
        try_first=(
            "Measure again after two gallons, feed and tap with one meter.",
            "Look at the seal of the membrane and the check valve.",
            "Change the membrane.",
        ),
    )


def carbon(chlorine_mg_l: float) -> Alarm | None:
    """Whether a carbon asks to be changed, by the free chlorine behind it [mg/L].

    >>> carbon(CHLORINE_BEHIND_CARBON), carbon(1.0).id
    (None, 'carbon.chlorine')
    """
    if chlorine_mg_l <= CHLORINE_BEHIND_CARBON:
        return None
    return Alarm(
        id="carbon.chlorine",
        sentence=(
            f"{chlorine_mg_l:.2g} mg/L chlorine behind the carbon; at most"
            f" {CHLORINE_BEHIND_CARBON:g} mg/L is wanted."
        ),
        try_first=("Is its bypass closed?", "Change the carbon.", "Is the flow within its size?"),
    )


def softener(hardness_mg_l: float) -> Alarm | None:
    """Whether a softener asks for work, by the hardness behind it [mg/L as CaCO3].

    >>> softener(HARDNESS_BEHIND_SOFTENER), softener(85.0).id
    (None, 'softener.hardness')
    """
    if hardness_mg_l <= HARDNESS_BEHIND_SOFTENER:
        return None
    return Alarm(
        id="softener.hardness",
        sentence=(
            f"{hardness_mg_l / MG_L_PER_GPG:.2g} gpg behind the softener; at most 1 gpg is wanted."
        ),
        try_first=(
            "Is there salt, and no bridge in it?",
            "Is it set to this water’s hardness?",
            "Is its bypass closed?",
            "Clean the resin; then test it again.",
        ),
    )
