"""Orders and their revisions."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make both tables."""
    op.create_table(
        "orders",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("due", sa.DateTime(timezone=False)),
        sa.Column("archived", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.PrimaryKeyConstraint("id", name="pk_orders"),
    )
    op.create_index("ix_orders_shelf", "orders", ["archived", "due"])
    op.create_table(
        "revisions",
        sa.Column("order_id", sa.Uuid(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("began_from", sa.Integer()),
        sa.Column("aside", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("document", JSONB(), nullable=False),
        sa.ForeignKeyConstraint(["order_id"], ["orders.id"], name="fk_revisions_order_id", ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("order_id", "number", name="pk_revisions"),
    )


def downgrade() -> None:
    """Take both tables away."""
    op.drop_table("revisions")
    op.drop_table("orders")
