"""Who works in the kitchen and when, and what it has room for, numbered as kits and pantries are; and the work on each
order, kept beside its card.
"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the table, and the columns; the work on the orders that are there is made when it is first asked for."""
    op.add_column("orders", sa.Column("work", sa.JSON(), nullable=True))
    op.add_column("orders", sa.Column("work_made_by", sa.Text(), nullable=True))
    op.add_column("orders", sa.Column("hours", sa.JSON(), nullable=True))
    op.create_table(
        "places",
        sa.Column("number", sa.Integer(), autoincrement=True, nullable=False),
        sa.Column("began_from", sa.Integer(), nullable=False),
        sa.Column("aside", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("saved_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("format", sa.Integer(), nullable=False),
        sa.Column("content", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("number", name="pk_places"),
    )


def downgrade() -> None:
    """Take them away."""
    op.drop_column("orders", "hours")
    op.drop_column("orders", "work_made_by")
    op.drop_column("orders", "work")
    op.drop_table("places")
