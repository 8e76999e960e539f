"""What an order asks of the shop, kept beside its card."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the column; the bills of the orders that are there are made when they are next asked for."""
    op.add_column("orders", sa.Column("bill", sa.JSON(), nullable=True))


def downgrade() -> None:
    """Take the column away."""
    op.drop_column("orders", "bill")
