"""A person is erased from the audit, and its chain holds"""

import sqlalchemy as sa
from alembic import op

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None

#: rows stay as they are, but for what is said of a person whom somebody erases
ERASABLE = """
create or replace function audit_append_only() returns trigger language plpgsql as $$
begin
  if tg_op = 'UPDATE' and current_setting('zesty.erasing', true) = 'on'
    and old.taken_out = '' and new.taken_out <> ''
    and (new.id, new.firm_id, new.user_id, new.at, new.target, new.action, new.version,
         new.fields, new.previous, new.hash)
      is not distinct from
        (old.id, old.firm_id, old.user_id, old.at, old.target, old.action, old.version,
         old.fields, old.previous, old.hash)
  then
    return new;
  end if;
  raise exception 'the audit is append-only' using errcode = 'insufficient_privilege';
end $$;
"""
APPEND_ONLY = """
create or replace function audit_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'the audit is append-only' using errcode = 'insufficient_privilege';
end $$;
"""


def upgrade() -> None:
    op.add_column("audit", sa.Column("taken_out", sa.Text(), server_default="", nullable=False))
    op.execute(ERASABLE)


def downgrade() -> None:
    op.execute(APPEND_ONLY)
    op.drop_column("audit", "taken_out")
