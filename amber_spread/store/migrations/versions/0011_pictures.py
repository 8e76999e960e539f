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
    op.add_column("revisions", sa.Column("pictures", sa.ARRAY(sa.Text()), server_default="{}", nullable=False))


def downgrade() -> None:
    """Put every picture back into its revisions, then drop the table."""
    connection = op.get_bind()
    for digest, data in connection.execute(sa.text("select digest, data from pictures")).all():
        put_back = "update revisions set document = replace(document::text, :digest, :data)::json"
        where = " where pictures @> array[:digest]"
        connection.execute(sa.text(put_back + where), {"digest": digest, "data": data})
    op.drop_column("revisions", "pictures")
    op.drop_table("pictures")
