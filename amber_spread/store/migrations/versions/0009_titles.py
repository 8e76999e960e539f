"""What each revision was called, in a column of its own: a history is listed without reading one design."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Make the column, and fill it from what was saved."""
    op.add_column("revisions", sa.Column("title", sa.Text(), nullable=True))
    op.execute("update revisions set title = document ->> 'title'")


def downgrade() -> None:
    """Take the column away; every design says its title itself."""
    op.drop_column("revisions", "title")
