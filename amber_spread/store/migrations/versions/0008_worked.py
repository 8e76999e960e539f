"""What was worked out of a carved body, so that a restart or another process works nothing out twice."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table, empty: it fills as bodies are worked out."""
    op.create_table(
        "worked",
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("used_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("key", name="pk_worked"),
    )
    op.create_index("ix_worked_used_at", "worked", ["used_at"])


def downgrade() -> None:
    """Take the table away; nothing in it was ever saved by anybody."""
    op.drop_table("worked")
