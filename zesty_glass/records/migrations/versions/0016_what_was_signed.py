"""What a proposal's job is made from, and that something changed since it was presented"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None

#: what was signed is held against findings of health until it is fitted
_STANDS = "state in ('presented', 'accepted')"
#: marks what is presented or signed at the homes of the visits whose rows were touched
_AT_HOMES = f"""
  update proposals set stale = true
  where {_STANDS} and not stale and visit_id in (
    select b.id from visits a join visits b on b.home_id = a.home_id
    where a.id in (select visit_id from touched)
  );
  return null;
"""
_OF_FIRM = """
  update proposals set stale = true
  where firm_id = {firm} and {stands} and not stale;
  return null;
"""
_FUNCTIONS = {
    "look_again_at_homes": _AT_HOMES,
    "look_again_at_visit": _AT_HOMES.replace("(select visit_id from touched)", "(new.id)"),
    "look_again_at_home": f"""
  update proposals set stale = true
  where {_STANDS} and not stale
    and visit_id in (select id from visits where home_id = new.id);
  return null;
""",
    "look_again_at_firm": _OF_FIRM.format(firm="new.id", stands=_STANDS),
    "look_again_at_catalogue": _OF_FIRM.format(firm="new.firm_id", stands="state = 'presented'"),
}
#: what a proposal says hangs on these parts of a visit, and how each of them changes
_PARTS = {
    "samples": ("insert", "update"),
    "readings": ("insert", "update"),
    "options": ("update", "delete"),
}
#: and on these rows, where one of these columns changes
_ROWS = {
    "visits": (
        "look_again_at_visit",
        ("home_id", "complaints", "assumptions_off", "settings", "rules"),
    ),
    "homes": ("look_again_at_home", ("home",)),
    "firms": ("look_again_at_firm", ("rules",)),
    "items": ("look_again_at_catalogue", ("data",)),
}


def _triggers() -> list[tuple[str, str, str]]:
    """Table, name and body of every trigger."""
    made = []
    for table, events in _PARTS.items():
        for event in events:
            rows = "old" if event == "delete" else "new"
            body = (
                f"after {event} on {table} referencing {rows} table as touched"
                " for each statement execute function look_again_at_homes()"
            )
            made.append((table, f"look_again_{event}", body))
    for table, (function, columns) in _ROWS.items():
        changed = " or ".join(f"old.{c} is distinct from new.{c}" for c in columns)
        body = (
            f"after update on {table} for each row when ({changed}) execute function {function}()"
        )
        made.append((table, "look_again", body))
    return made


def upgrade() -> None:
    op.add_column("proposals", sa.Column("basis", sa.Text(), server_default="", nullable=False))
    op.add_column(
        "proposals", sa.Column("stale", sa.Boolean(), server_default="false", nullable=False)
    )
    op.add_column("proposals", sa.Column("moved", JSONB(), nullable=True))
    for name, body in _FUNCTIONS.items():
        op.execute(
            f"create function {name}() returns trigger language plpgsql as $$ begin {body} end $$"
        )
    for _, name, body in _triggers():
        op.execute(f"create trigger {name} {body}")


def downgrade() -> None:
    for table, name, _ in _triggers():
        op.execute(f"drop trigger {name} on {table}")
    for name in _FUNCTIONS:
        op.execute(f"drop function {name}()")
    for column in ("moved", "stale", "basis"):
        op.drop_column("proposals", column)
