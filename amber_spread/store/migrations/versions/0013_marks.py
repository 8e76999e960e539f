"""What has been done of each order, and which of its steps were moved."""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column; no order has marks."""
    op.add_column("orders", sa.Column("marks", sa.JSON(), nullable=True))


def downgrade() -> None:
    """Drop it."""
    op.drop_column("orders", "marks")
