"""Figures taken out of documents: kinds and changes of a job, day and state of a proposal"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

KINDS = "jsonb_path_query_array(data, '$.stages[*].kind')"
CHANGES = "jsonb_array_length(coalesce(data->'changes', '[]'::jsonb))"


def _from_document(
    name: str, kind: sa.types.TypeEngine[Any], said: str, null: bool
) -> sa.Column[Any]:
    return sa.Column(name, kind, sa.Computed(said, persisted=True), nullable=null)


def upgrade() -> None:
    op.add_column("jobs", _from_document("kinds", postgresql.JSONB(), KINDS, False))
    op.add_column("jobs", _from_document("changes", sa.Integer(), CHANGES, False))
    op.create_index(
        "jobs_by_kinds",
        "jobs",
        ["kinds"],
        postgresql_using="gin",
        postgresql_ops={"kinds": "jsonb_path_ops"},
    )
    op.create_index(
        "jobs_with_changes", "jobs", ["firm_id"], postgresql_where=sa.text("changes > 0")
    )
    day, state = "left(data->>'created_at', 10)", "data->>'state'"
    op.add_column("proposals", _from_document("written_on", sa.Text(), day, True))
    op.add_column("proposals", _from_document("state", sa.Text(), state, True))
    op.create_index("proposals_by_outcome", "proposals", ["firm_id", "state", "written_on"])


def downgrade() -> None:
    op.drop_index("proposals_by_outcome", "proposals")
    op.drop_column("proposals", "state")
    op.drop_column("proposals", "written_on")
    op.drop_index("jobs_with_changes", "jobs")
    op.drop_index("jobs_by_kinds", "jobs")
    op.drop_column("jobs", "changes")
    op.drop_column("jobs", "kinds")
