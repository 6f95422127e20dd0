"""The day whose prices and limits a visit is judged by; visits made and closed; first results"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    moment = sa.DateTime(timezone=True)
    op.create_table(
        "past_items",
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("code", sa.Text(), nullable=False),
        sa.Column("until", moment, nullable=False),
        sa.Column("data", JSONB(), nullable=False),
        sa.Column("retired", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("firm_id", "code", "until"),
    )
    op.add_column("visits", sa.Column("terms_at", moment, nullable=True))
    op.execute("update visits set terms_at = started_at")
    op.add_column("visits", sa.Column("made_at", moment, nullable=True))
    op.execute("""
        update visits set made_at = started_at where started_at < now()
          or id in (select visit_id from samples)
    """)
    op.add_column("visits", sa.Column("closed", JSONB(), nullable=True))
    op.create_index(
        "visits_to_be_made",
        "visits",
        ["firm_id", "started_at"],
        postgresql_where=sa.text("made_at is null and closed is null"),
    )
    for column, kind in (("first_verdict", sa.Text()), ("first_short_by", sa.Float())):
        op.add_column("proved", sa.Column(column, kind, nullable=True))
    op.execute("update proved set first_verdict = verdict, first_short_by = short_by")


def downgrade() -> None:
    for column in ("first_short_by", "first_verdict"):
        op.drop_column("proved", column)
    op.drop_index("visits_to_be_made")
    for column in ("closed", "made_at", "terms_at"):
        op.drop_column("visits", column)
    op.drop_table("past_items")
