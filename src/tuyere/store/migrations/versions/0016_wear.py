"""measured wear is a reading too"""

from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.drop_constraint(op.f("ck_reading_kind_known"), "reading")
    op.create_check_constraint(op.f("ck_reading_kind_known"), "reading", "kind IN ('belt tension', 'shaft speed', 'alignment', 'wear')")


def downgrade() -> None:
    op.execute("DELETE FROM reading_value USING reading WHERE reading.id = reading_id AND reading.kind = 'wear'")
    op.execute("DELETE FROM reading WHERE kind = 'wear'")
    op.drop_constraint(op.f("ck_reading_kind_known"), "reading")
    op.create_check_constraint(op.f("ck_reading_kind_known"), "reading", "kind IN ('belt tension', 'shaft speed', 'alignment')")
