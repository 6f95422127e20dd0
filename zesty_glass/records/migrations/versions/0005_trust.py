"""Versions compared, audit chained and append-only, seals, throttles, visits from files"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

JSON = sa.JSON().with_variant(postgresql.JSONB(astext_type=sa.Text()), "postgresql")

APPEND_ONLY = """
create function audit_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'the audit is append-only' using errcode = 'insufficient_privilege';
end $$;
create trigger audit_rows_stay before update or delete on audit
  for each row execute function audit_append_only();
create trigger audit_stays before truncate on audit
  for each statement execute function audit_append_only();
"""


def _text(table: str, *names: str) -> None:
    for name in names:
        op.add_column(table, sa.Column(name, sa.Text(), nullable=False, server_default=""))
        op.alter_column(table, name, server_default=None)


def upgrade() -> None:
    _text("visits", "request")
    op.add_column("visits", sa.Column("brought", JSON, nullable=True))
    op.add_column("visits", sa.Column("own_items", JSON, nullable=False, server_default="[]"))
    op.alter_column("visits", "own_items", server_default=None)
    op.add_column("readings", sa.Column("kept_at", sa.DateTime(timezone=True), nullable=True))
    _text("demonstrations", "request")
    _text("proposals", "request", "seal", "seal_key")
    op.add_column("proposals", sa.Column("made_by", sa.Uuid(), nullable=True))
    _text("mails", "request")
    op.drop_table("sign_ins")
    op.create_table(
        "sign_ins",
        sa.Column("token_hash", sa.Text(), primary_key=True),
        sa.Column("id", sa.Uuid(), nullable=False, unique=True),
        sa.Column(
            "user_id",
            sa.Uuid(),
            sa.ForeignKey("users.id", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("expires_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("seen_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("proved_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("device", sa.Text(), nullable=False),
    )
    op.drop_table("attempts")
    op.create_table(
        "throttles",
        sa.Column("key", sa.Text(), primary_key=True),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("since", sa.DateTime(timezone=True), nullable=False),
        sa.Column("last", sa.DateTime(timezone=True), nullable=False, index=True),
    )
    _text("audit", "before", "after", "previous", "hash")
    op.create_index("audit_by_firm", "audit", ["firm_id", "id"])
    op.drop_constraint("audit_firm_id_fkey", "audit", type_="foreignkey")
    op.create_foreign_key("audit_firm_id_fkey", "audit", "firms", ["firm_id"], ["id"])
    op.execute(APPEND_ONLY)


def downgrade() -> None:
    op.execute("drop trigger audit_rows_stay on audit")
    op.execute("drop trigger audit_stays on audit")
    op.execute("drop function audit_append_only()")
    op.drop_constraint("audit_firm_id_fkey", "audit", type_="foreignkey")
    op.create_foreign_key(
        "audit_firm_id_fkey", "audit", "firms", ["firm_id"], ["id"], ondelete="CASCADE"
    )
    op.drop_index("audit_by_firm", "audit")
    for name in ("before", "after", "previous", "hash"):
        op.drop_column("audit", name)
    op.drop_table("throttles")
    op.create_table(
        "attempts",
        sa.Column("id", sa.Integer(), primary_key=True, autoincrement=True),
        sa.Column("key", sa.Text(), nullable=False, index=True),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
    )
    op.drop_table("sign_ins")
    op.create_table(
        "sign_ins",
        sa.Column("token_hash", sa.Text(), primary_key=True),
        sa.Column(
            "user_id", sa.Uuid(), sa.ForeignKey("users.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("created_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("expires_at", sa.DateTime(timezone=True), nullable=False),
    )
    op.drop_column("mails", "request")
    for name in ("request", "seal", "seal_key", "made_by"):
        op.drop_column("proposals", name)
    op.drop_column("demonstrations", "request")
    op.drop_column("readings", "kept_at")
    for name in ("request", "brought", "own_items"):
        op.drop_column("visits", name)
