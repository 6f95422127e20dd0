"""Who made an invitation, by id: two people may be called alike"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import UUID

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("invitations", sa.Column("made_by_id", UUID(as_uuid=True), nullable=True))


def downgrade() -> None:
    op.drop_column("invitations", "made_by_id")
