"""in which state a tension was read: tensioner engaged or not, how many turns the belt had been run"""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("reading", sa.Column("engaged", sa.String(), nullable=False, server_default=""))
    op.add_column("reading", sa.Column("turned", sa.Integer(), nullable=True))
    op.create_check_constraint(op.f("ck_reading_engaged_known"), "reading", "engaged IN ('', 'yes', 'no')")


def downgrade() -> None:
    op.drop_constraint(op.f("ck_reading_engaged_known"), "reading")
    op.drop_column("reading", "turned")
    op.drop_column("reading", "engaged")
