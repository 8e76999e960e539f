"""What is saved is kept as it was written, with the number of its format; an order has its card for the shelf."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

WRITTEN = {"revisions": "document", "kits": "content", "pantries": "content"}


def upgrade() -> None:
    """Text as it was written instead of JSON taken apart; all that is there was written in format 1."""
    for table, column in WRITTEN.items():
        op.alter_column(table, column, type_=sa.JSON(), postgresql_using=f"{column}::json")
        op.add_column(table, sa.Column("format", sa.Integer(), server_default="1", nullable=False))
        op.alter_column(table, "format", server_default=None)
    op.add_column("orders", sa.Column("card", sa.JSON(), nullable=True))
    op.add_column("orders", sa.Column("card_made_by", sa.Text(), nullable=True))


def downgrade() -> None:
    """As it was."""
    op.drop_column("orders", "card_made_by")
    op.drop_column("orders", "card")
    for table, column in WRITTEN.items():
        op.drop_column(table, "format")
        op.alter_column(table, column, type_=postgresql.JSONB(), postgresql_using=f"{column}::jsonb")
