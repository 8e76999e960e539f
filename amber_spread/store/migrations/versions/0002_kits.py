"""The kit the kitchen owns."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "kits",
        sa.Column("number", sa.Integer(), autoincrement=True, nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("kit", JSONB(), nullable=False),
        sa.PrimaryKeyConstraint("number", name="pk_kits"),
    )


def downgrade() -> None:
    """Take the table away."""
    op.drop_table("kits")
