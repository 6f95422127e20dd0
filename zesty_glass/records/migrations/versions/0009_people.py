"""People: invitations, second factor, tokens for scripts; mail that waits to be sent"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

_JSON = sa.JSON().with_variant(postgresql.JSONB(), "postgresql")
_AT = sa.DateTime(timezone=True)


def _users() -> None:
    for column in (
        sa.Column("version", sa.Integer(), nullable=False, server_default="1"),
        sa.Column("totp_secret", sa.Text(), nullable=False, server_default=""),
        sa.Column("totp_on", sa.Boolean(), nullable=False, server_default=sa.false()),
        sa.Column("totp_last", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("recovery", _JSON, nullable=False, server_default="[]"),
    ):
        op.add_column("users", column)


def _mails() -> None:
    for column in (
        sa.Column("state", sa.Text(), nullable=False, server_default="kept"),
        sa.Column("tries", sa.Integer(), nullable=False, server_default="0"),
        sa.Column("next_try", _AT, nullable=True),
        sa.Column("error", sa.Text(), nullable=False, server_default=""),
        sa.Column("fresh", sa.Text(), nullable=False, server_default=""),
    ):
        op.add_column("mails", column)
    waiting = sa.text("state = 'waiting'")
    op.create_index("mails_waiting", "mails", ["next_try"], postgresql_where=waiting)


def upgrade() -> None:
    _users()
    _mails()
    op.create_table(
        "invitations",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("user_id", sa.Uuid(), nullable=True),
        sa.Column("email", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("role", sa.Text(), nullable=False),
        sa.Column("token_hash", sa.Text(), nullable=False),
        sa.Column("made_at", _AT, nullable=False),
        sa.Column("made_by", sa.Text(), nullable=False),
        sa.Column("expires_at", _AT, nullable=False),
        sa.Column("used_at", _AT, nullable=True),
        sa.Column("revoked_at", _AT, nullable=True),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["user_id"], ["users.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("token_hash"),
    )
    op.create_index(op.f("ix_invitations_firm_id"), "invitations", ["firm_id"])
    op.create_table(
        "tokens",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("firm_id", sa.Uuid(), nullable=False),
        sa.Column("user_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("scopes", _JSON, nullable=False),
        sa.Column("token_hash", sa.Text(), nullable=False),
        sa.Column("made_at", _AT, nullable=False),
        sa.Column("expires_at", _AT, nullable=False),
        sa.Column("revoked_at", _AT, nullable=True),
        sa.Column("used_at", _AT, nullable=True),
        sa.ForeignKeyConstraint(["firm_id"], ["firms.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["user_id"], ["users.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("token_hash"),
    )
    op.create_index(op.f("ix_tokens_firm_id"), "tokens", ["firm_id"])


def downgrade() -> None:
    op.drop_table("tokens")
    op.drop_table("invitations")
    op.drop_index("mails_waiting", "mails")
    for column in ("fresh", "error", "next_try", "tries", "state"):
        op.drop_column("mails", column)
    for column in ("recovery", "totp_last", "totp_on", "totp_secret", "version"):
        op.drop_column("users", column)
