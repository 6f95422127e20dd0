"""A job without a proposal: equipment that others fitted, taken into care"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.alter_column("jobs", "proposal_id", existing_type=sa.Uuid(), nullable=True)


def downgrade() -> None:
    op.execute("delete from jobs where proposal_id is null")
    op.alter_column("jobs", "proposal_id", existing_type=sa.Uuid(), nullable=False)
