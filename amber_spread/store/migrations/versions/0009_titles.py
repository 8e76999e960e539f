"""The title of each revision in a column, so that a list of versions reads no designs."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Add the column and fill it from the designs."""
    op.add_column("revisions", sa.Column("title", sa.Text(), nullable=True))
    op.execute("update revisions set title = document ->> 'title'")


def downgrade() -> None:
    """Drop the column. Every design still has its title."""
    op.drop_column("revisions", "title")
