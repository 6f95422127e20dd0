"""A glass drawn behind a softener says so by a field of its own"""

from alembic import op

revision = "0024"
down_revision = "0023"
branch_labels = None
depends_on = None

SOFTENED = """update samples
set data = jsonb_set(data, '{softened}', to_jsonb(data ->> 'after' = 'softener'))
where data ? 'after' and not data ? 'softened'"""


def upgrade() -> None:
    op.execute(SOFTENED)


def downgrade() -> None:
    op.execute("update samples set data = data - 'softened'")
