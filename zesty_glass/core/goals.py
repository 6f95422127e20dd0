"""What a household asks of whatever is bought, beside good water: a goal is no complaint and no
reason of health. It puts systems in another order, and what it costs is said.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType
from typing import Literal

GoalId = Literal[
    "no_salt",
    "drinking_only",
    "price_today",
    "cost_over_years",
    "own_time",
    "no_electricity",
    "less_waste",
    "no_drilling",
    "germs",
]
#: goals in the words of those who have them
GOALS: Mapping[GoalId, str] = MappingProxyType(
    {
        "no_salt": "No salt",
        "drinking_only": "Drinking water only",
        "price_today": "Lowest price today",
        "cost_over_years": "Lowest total cost",
        "own_time": "Least of our time",
        "no_electricity": "No electricity",
        "less_waste": "Least wastewater",
        "no_drilling": "No drilling",
        "germs": "Worried about germs",
    }
)
