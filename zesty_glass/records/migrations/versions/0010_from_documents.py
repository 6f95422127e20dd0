"""Figures taken out of documents: kinds of a job, how long its parts served, day and state of a
proposal.
"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

KINDS = "jsonb_path_query_array(data, '$.stages[*].kind')"
#: what stood in the jobs before: each change with the days since the one before or the fitting
SERVED = """
insert into served (job_id, key, time, firm_id, home_id, label, kind, months, days)
select id, key, row_number() over (partition by id, key order by on_day), firm_id, home_id, label,
       kind, months, days
from (
  select j.id, j.firm_id, j.home_id, p->>'key' key, p->>'label' label, p->>'kind' kind,
         (p->>'months')::float months, (c->>'on')::date on_day,
         (c->>'on')::date - coalesce(
           lag((c->>'on')::date) over (partition by j.id, p->>'key' order by (c->>'on')::date),
           (j.data->>'fitted_on')::date) days
  from jobs j
  cross join jsonb_array_elements(j.data->'parts') p
  join jsonb_array_elements(j.data->'changes') c on c->>'part' = p->>'key'
) told where days > 0
"""


def _from_document(
    name: str, kind: sa.types.TypeEngine[Any], said: str, null: bool
) -> sa.Column[Any]:
    return sa.Column(name, kind, sa.Computed(said, persisted=True), nullable=null)


def _served() -> None:
    op.create_table(
        "served",
        sa.Column("job_id", sa.Uuid(), nullable=False),
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column("time", sa.Integer(), nullable=False),
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("home_id", sa.Uuid(), nullable=False),
        sa.Column("label", sa.Text(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("months", sa.Float(), nullable=False),
        sa.Column("days", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["jobs.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["home_id"], ["homes.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", "key", "time"),
    )
    op.create_index("served_by_part", "served", ["firm_id", "label", "kind"])
    op.execute(SERVED)


def upgrade() -> None:
    _served()
    op.add_column("jobs", _from_document("kinds", postgresql.JSONB(), KINDS, False))
    op.create_index(
        "jobs_by_kinds",
        "jobs",
        ["kinds"],
        postgresql_using="gin",
        postgresql_ops={"kinds": "jsonb_path_ops"},
    )
    day, state = "left(data->>'created_at', 10)", "data->>'state'"
    op.add_column("proposals", _from_document("written_on", sa.Text(), day, True))
    op.add_column("proposals", _from_document("state", sa.Text(), state, True))
    op.create_index("proposals_by_outcome", "proposals", ["firm_id", "state", "written_on"])


def downgrade() -> None:
    op.drop_table("served")
    op.drop_index("proposals_by_outcome", "proposals")
    op.drop_column("proposals", "state")
    op.drop_column("proposals", "written_on")
    op.drop_index("jobs_by_kinds", "jobs")
    op.drop_column("jobs", "kinds")
