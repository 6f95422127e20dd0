"""What a piece of equipment does, in the words by which rules ask: no rule asks for a technology by
its name.
"""

from __future__ import annotations

from typing import Literal

Does = Literal[
    "softens",  # a bed of cation resin takes hardness against sodium or potassium
    "leaves minerals",  # it is sold against scale, and the hardness stays
    "against hardness",
    "against tannin",
    "takes iron",
    "raises pH",
    "takes chlorine",
    "inactivates",
    "holds back",  # a membrane holds dissolved matter back
    "makes slowly",  # into a tank: how much it makes is what is compared
    "as it comes",  # behind it runs the water that no stage ahead of it has treated
    "exchanges",  # a bed of resin is renewed with brine
]
NOTHING: frozenset[Does] = frozenset()
