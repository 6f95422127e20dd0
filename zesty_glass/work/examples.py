"""The example catalog that a new firm begins with: to keep, to change, or to take off sale whole.

An item is an example as long as nobody changed it.
"""

from __future__ import annotations

from uuid import UUID, uuid4

from sqlalchemy.orm import Session

from ..catalogue.examples import example_items
from ..core.treating.items import Item
from ..documents.codec import load, plain
from ..records import store
from ..records.models import ItemRow
from .catalogue import parts_of
from .person import Person, manager_only
from .versioning import change


def add_examples(db: Session, firm: UUID) -> None:
    """Put the example catalog into a firm that has none."""
    for item in example_items():
        data = plain(item)
        row = ItemRow(id=uuid4(), firm_id=firm, code=item.code, data=data, version=1, retired=False)
        db.add(row)


def _examples(rows: list[ItemRow]) -> list[ItemRow]:
    """Items on sale that are still as they came."""
    came = {i.code: i for i in example_items()}
    return [r for r in rows if not r.retired and load(Item, r.data) == came.get(r.code)]


def examples_on_sale(db: Session, who: Person) -> int:
    """How many of the items on sale are examples."""
    return len(_examples(list(store.items(db, who.firm_id))))


def take_examples_off(db: Session, who: Person) -> int:
    """Take every example off sale, and say how many; one that is a part of a firm's own system on
    sale stays. Managers only; twice is once.
    """
    manager_only(who)
    rows = list(store.items(db, who.firm_id, lock=True))
    found = _examples(rows)
    own = [r for r in rows if not r.retired and r not in found]
    held = {code for r in own for code in parts_of(r)}
    off = [r for r in found if r.code not in held]
    for row in off:
        change(db, who, row, {"retired": True}, "taken off sale")
    return len(off)
