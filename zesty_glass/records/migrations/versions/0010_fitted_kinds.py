"""Kinds of what a job fits: homes are found by them"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

KINDS = "jsonb_path_query_array(data, '$.stages[*].kind')"


def upgrade() -> None:
    made = sa.Computed(KINDS, persisted=True)
    op.add_column("jobs", sa.Column("kinds", postgresql.JSONB(), made, nullable=False))
    op.create_index(
        "jobs_by_kinds",
        "jobs",
        ["kinds"],
        postgresql_using="gin",
        postgresql_ops={"kinds": "jsonb_path_ops"},
    )


def downgrade() -> None:
    op.drop_index("jobs_by_kinds", "jobs")
    op.drop_column("jobs", "kinds")
