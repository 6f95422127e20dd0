"""Complaints and warranty cases as records of their own; who owned a home before"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("home_notes", sa.Column("kind", sa.Text(), server_default="note", nullable=False))
    op.add_column("home_notes", sa.Column("closed_on", sa.Date(), nullable=True))
    op.add_column("home_notes", sa.Column("outcome", sa.Text(), server_default="", nullable=False))
    op.create_index(
        "home_cases_open",
        "home_notes",
        ["firm_id", "on"],
        postgresql_where=sa.text("kind <> 'note' and closed_on is null and struck_at is null"),
    )
    op.add_column("homes", sa.Column("former", JSONB(), server_default="[]", nullable=False))


def downgrade() -> None:
    op.drop_column("homes", "former")
    op.drop_index("home_cases_open")
    for column in ("outcome", "closed_on", "kind"):
        op.drop_column("home_notes", column)
