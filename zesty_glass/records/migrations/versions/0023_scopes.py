"""Tokens that read customers' data say so: those that read everything go on reading it"""

from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute(
        "update tokens set scopes = scopes || '[\"personal\"]' where scopes @> '[\"read\"]'"
        " and not scopes @> '[\"personal\"]'"
    )


def downgrade() -> None:
    op.execute("update tokens set scopes = scopes - 'personal' - 'proposals'")
