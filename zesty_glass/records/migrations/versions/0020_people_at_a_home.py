"""Several people at a home; two homes that are one; a colleague's home that is asked for"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB, UUID

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("homes", sa.Column("others", JSONB(), server_default="[]", nullable=False))
    into = sa.ForeignKey("homes.id", ondelete="CASCADE")
    op.add_column("homes", sa.Column("merged_into", UUID(as_uuid=True), into, nullable=True))
    op.add_column("homes", sa.Column("brought", JSONB(), nullable=True))
    merged = sa.text("merged_into is not null")
    op.create_index("homes_merged", "homes", ["merged_into"], postgresql_where=merged)
    op.execute("create index homes_by_place on homes (firm_id, lower(home ->> 'place'))")
    op.create_table(
        "home_asks",
        sa.Column("home_id", UUID(as_uuid=True), nullable=False),
        sa.Column("user_id", UUID(as_uuid=True), nullable=False),
        sa.Column("firm_id", UUID(as_uuid=True), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("home_id", "user_id"),
        sa.ForeignKeyConstraint(["home_id"], ["homes.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["user_id"], ["users.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
    )


def downgrade() -> None:
    op.drop_table("home_asks")
    for index in ("homes_by_place", "homes_merged"):
        op.drop_index(index)
    for column in ("brought", "merged_into", "others"):
        op.drop_column("homes", column)
