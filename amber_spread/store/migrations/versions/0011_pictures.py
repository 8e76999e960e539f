"""Each picture is stored once, however many revisions contain it."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the table. Revisions saved before keep their pictures inside."""
    op.create_table(
        "pictures",
        sa.Column("digest", sa.Text(), nullable=False),
        sa.Column("data", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("digest", name="pk_pictures"),
    )


def downgrade() -> None:
    """Put every picture back into its revisions, then drop the table."""
    connection = op.get_bind()
    for digest, data in connection.execute(sa.text("select digest, data from pictures")).all():
        statement = "update revisions set document = replace(document::text, :stored, :data)::json"
        where = " where strpos(document::text, :stored) > 0"
        connection.execute(sa.text(statement + where), {"stored": f"picture:{digest}", "data": data})
    op.drop_table("pictures")
