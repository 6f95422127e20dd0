"""What was found at a home and what stands there, for finding homes by it"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

THERE = "jsonb_path_query_array(home, '$.in_place[*].kind')"


def _indexed(column: str) -> None:
    op.create_index(
        f"homes_by_{column}",
        "homes",
        [column],
        postgresql_using="gin",
        postgresql_ops={column: "jsonb_path_ops"},
    )


def upgrade() -> None:
    json = postgresql.JSONB()
    op.add_column("homes", sa.Column("found", json, server_default="[]", nullable=False))
    there = sa.Column("there", json, sa.Computed(THERE, persisted=True), nullable=False)
    op.add_column("homes", there)
    _indexed("found")
    _indexed("there")


def downgrade() -> None:
    for column in ("there", "found"):
        op.drop_index(f"homes_by_{column}", "homes")
        op.drop_column("homes", column)
