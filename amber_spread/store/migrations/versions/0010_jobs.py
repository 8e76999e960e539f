"""The queue of long jobs, with its results: procrastinate's own tables, and two of ours."""

import sqlalchemy as sa
from alembic import op

from amber_spread.store.queue_schema import create_queue, drop_queue

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    """Create the tables. A crash of the database empties the unlogged ones: whoever waits for a job asks again."""
    create_queue(op.get_bind())
    op.create_table(
        "jobs",
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column("job_id", sa.BigInteger(), nullable=False),
        sa.Column("client", sa.Text(), nullable=False),
        sa.Column("slot", sa.Integer(), nullable=False),
        sa.Column("background", sa.Boolean(), nullable=False),
        sa.Column("seconds", sa.Float(), nullable=False),
        sa.Column("call", sa.LargeBinary(), nullable=False),
        sa.Column("bodies_key", sa.Text(), nullable=False),
        sa.Column("asked_at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("finished_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("outcome", sa.Text(), nullable=True),
        sa.Column("result", sa.LargeBinary(), nullable=True),
        sa.PrimaryKeyConstraint("key", name="pk_jobs"),
        prefixes=["UNLOGGED"],
    )
    op.create_index("ix_jobs_client", "jobs", ["client"])
    op.create_table(
        "job_waiters",
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column("process", sa.Text(), nullable=False),
        sa.Column("until", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("key", "process", name="pk_job_waiters"),
        prefixes=["UNLOGGED"],
    )


def downgrade() -> None:
    """Drop the tables. No saved work is in them."""
    op.drop_table("job_waiters")
    op.drop_table("jobs")
    drop_queue(op.get_bind())
