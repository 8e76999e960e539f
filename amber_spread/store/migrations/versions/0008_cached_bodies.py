"""A cache of carved bodies, so that neither a restart nor another process computes one twice."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the table. It starts empty and fills as bodies are computed."""
    op.create_table(
        "cached_bodies",
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("used_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("key", name="pk_cached_bodies"),
    )
    op.create_index("ix_cached_bodies_used_at", "cached_bodies", ["used_at"])


def downgrade() -> None:
    """Drop the table. No saved work is in it."""
    op.drop_table("cached_bodies")
