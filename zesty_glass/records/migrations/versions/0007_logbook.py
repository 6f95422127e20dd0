"""Homes found by words, and how promises stand"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

WORDS = (
    "lower(coalesce(customer->>'name', '') || ' ' || coalesce(home->>'name', '') || ' ' ||"
    " coalesce(home->>'place', ''))"
)


def upgrade() -> None:
    op.execute("create extension if not exists pg_trgm")
    op.add_column(
        "homes", sa.Column("words", sa.Text(), sa.Computed(WORDS, persisted=True), nullable=False)
    )
    op.create_index(
        "homes_by_words",
        "homes",
        ["words"],
        postgresql_using="gin",
        postgresql_ops={"words": "gin_trgm_ops"},
    )
    op.create_index("homes_in_order", "homes", ["firm_id", "words", "id"])
    op.create_table(
        "proved",
        sa.Column("job_id", sa.Uuid(), nullable=False),
        sa.Column("analyte", sa.Text(), nullable=False),
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("home_id", sa.Uuid(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("item", sa.Text(), nullable=False),
        sa.Column("verdict", sa.Text(), nullable=False),
        sa.Column("short_by", sa.Float(), nullable=True),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["home_id"], ["homes.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["job_id"], ["jobs.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", "analyte"),
    )
    op.create_index("proved_by_kind", "proved", ["firm_id", "kind", "item", "analyte"])


def downgrade() -> None:
    op.drop_table("proved")
    op.drop_index("homes_in_order", "homes")
    op.drop_index("homes_by_words", "homes")
    op.drop_column("homes", "words")
