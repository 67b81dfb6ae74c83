"""One row by which the server learns whether a write is kept."""

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "pulse",
        sa.Column("id", sa.SmallInteger(), autoincrement=False, nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_pulse")),
    )
    op.execute("INSERT INTO pulse (id, at) VALUES (1, now())")


def downgrade() -> None:
    op.drop_table("pulse")
