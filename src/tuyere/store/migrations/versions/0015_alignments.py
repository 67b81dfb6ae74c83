"""alignments are readings too: of which wheel, as found or as left"""

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("reading", sa.Column("wheel", sa.Integer(), nullable=False, server_default="0"))
    op.add_column("reading", sa.Column("standing", sa.String(), nullable=False, server_default=""))
    op.drop_constraint(op.f("ck_reading_kind_known"), "reading")
    op.create_check_constraint(op.f("ck_reading_kind_known"), "reading", "kind IN ('belt tension', 'shaft speed', 'alignment')")
    op.create_check_constraint(op.f("ck_reading_standing_known"), "reading", "standing IN ('', 'as found', 'between', 'as left')")


def downgrade() -> None:
    op.execute("DELETE FROM reading_value USING reading WHERE reading.id = reading_id AND reading.kind = 'alignment'")
    op.execute("DELETE FROM reading WHERE kind = 'alignment'")
    op.drop_constraint(op.f("ck_reading_standing_known"), "reading")
    op.drop_constraint(op.f("ck_reading_kind_known"), "reading")
    op.create_check_constraint(op.f("ck_reading_kind_known"), "reading", "kind IN ('belt tension', 'shaft speed')")
    op.drop_column("reading", "standing")
    op.drop_column("reading", "wheel")
