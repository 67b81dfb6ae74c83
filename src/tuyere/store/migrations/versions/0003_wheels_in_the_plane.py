"""wheels in the plane: name, place, contact and face"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("wheel", sa.Column("name", sa.String(), server_default="", nullable=False))
    op.add_column("wheel", sa.Column("x_m", sa.Float(), nullable=True))
    op.add_column("wheel", sa.Column("y_m", sa.Float(), nullable=True))
    op.add_column("wheel", sa.Column("contact", sa.String(), server_default="inside", nullable=False))
    op.add_column("wheel", sa.Column("face", sa.String(), server_default="grooved", nullable=False))
    op.create_check_constraint(op.f("ck_wheel_contact_known"), "wheel", "contact IN ('inside', 'back')")
    op.create_check_constraint(op.f("ck_wheel_face_known"), "wheel", "face IN ('grooved', 'flat')")
    op.create_check_constraint(op.f("ck_wheel_place_whole"), "wheel", "(x_m IS NULL) = (y_m IS NULL)")


def downgrade() -> None:
    for column in ("face", "contact", "y_m", "x_m", "name"):
        op.drop_column("wheel", column)
