"""teeth of toothed pulleys and sprockets"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("wheel", sa.Column("teeth", sa.Integer(), nullable=True))
    op.create_check_constraint(op.f("ck_wheel_teeth_enough"), "wheel", "teeth >= 5")


def downgrade() -> None:
    op.drop_column("wheel", "teeth")
