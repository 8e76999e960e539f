"""Kits are numbered and stale saves kept aside, as pantries are; both keep their content under one name."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add what a kit began from, 0 where nobody knows, and name both contents alike."""
    op.add_column("kits", sa.Column("began_from", sa.Integer(), server_default="0", nullable=False))
    op.alter_column("kits", "began_from", server_default=None)
    op.add_column("kits", sa.Column("aside", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.alter_column("kits", "kit", new_column_name="content")
    op.alter_column("pantries", "pantry", new_column_name="content")


def downgrade() -> None:
    """As it was; stale kits, which would count then, are taken away."""
    op.execute("delete from kits where aside")
    op.alter_column("pantries", "content", new_column_name="pantry")
    op.alter_column("kits", "content", new_column_name="kit")
    op.drop_column("kits", "aside")
    op.drop_column("kits", "began_from")
