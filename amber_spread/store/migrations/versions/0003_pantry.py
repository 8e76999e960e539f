"""The pantry: recipes, prices, larder and what work costs."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table."""
    op.create_table(
        "pantries",
        sa.Column("number", sa.Integer(), autoincrement=True, nullable=False),
        sa.Column("began_from", sa.Integer(), nullable=False),
        sa.Column("aside", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("pantry", JSONB(), nullable=False),
        sa.PrimaryKeyConstraint("number", name="pk_pantries"),
    )


def downgrade() -> None:
    """Take the table away."""
    op.drop_table("pantries")
