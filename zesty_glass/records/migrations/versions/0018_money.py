"""Payments that were noted, what a signed proposal comes to, questions that are answered"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    moment = sa.DateTime(timezone=True)
    op.create_table(
        "payments",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("proposal_id", sa.Uuid(), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        sa.Column("amount", sa.Numeric(12, 2), nullable=False),
        sa.Column("label", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("by", sa.Text(), nullable=False),
        sa.Column("at", moment, nullable=False),
        sa.Column("struck_at", moment, nullable=True),
        sa.Column("struck_because", sa.Text(), server_default="", nullable=False),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["proposal_id"], ["proposals.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
    )
    op.create_index("payments_by_day", "payments", ["firm_id", "on"])
    op.create_index("payments_by_proposal", "payments", ["proposal_id"])
    op.add_column("proposals", sa.Column("money", JSONB(), nullable=True))
    op.add_column("mails", sa.Column("about", sa.Text(), server_default="", nullable=False))
    op.add_column("mails", sa.Column("answered_at", moment, nullable=True))


def downgrade() -> None:
    for column in ("answered_at", "about"):
        op.drop_column("mails", column)
    op.drop_column("proposals", "money")
    op.drop_table("payments")
