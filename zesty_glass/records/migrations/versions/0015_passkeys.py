"""Passkeys, and the questions that they answer"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None

STAMP = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        "passkeys",
        sa.Column("id", sa.Uuid(), primary_key=True),
        sa.Column("user_id", sa.Uuid(), nullable=False),
        sa.Column("credential", sa.LargeBinary(), nullable=False, unique=True),
        sa.Column("public_key", sa.LargeBinary(), nullable=False),
        sa.Column("uses", sa.BigInteger(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("made_at", STAMP, nullable=False),
        sa.Column("used_at", STAMP, nullable=True),
        sa.ForeignKeyConstraint(["user_id"], ["users.id"], ondelete="CASCADE"),
    )
    op.create_index("ix_passkeys_user_id", "passkeys", ["user_id"])
    op.create_table(
        "challenges",
        sa.Column("asked", sa.LargeBinary(), primary_key=True),
        sa.Column("user_id", sa.Uuid(), nullable=True),
        sa.Column("until", STAMP, nullable=False),
        sa.ForeignKeyConstraint(["user_id"], ["users.id"], ondelete="CASCADE"),
    )
    op.create_index("ix_challenges_until", "challenges", ["until"])


def downgrade() -> None:
    op.drop_table("challenges")
    op.drop_table("passkeys")
