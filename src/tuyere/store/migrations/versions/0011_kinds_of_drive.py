"""which kinds of drive there are is said in one place, and not again in the database"""

from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

_KNOWN = "family IN ('v-belt', 'synchronous', 'flat belt', 'roller chain')"
_NAMED = "length(btrim(family)) BETWEEN 1 AND 120"


def upgrade() -> None:
    op.drop_constraint(op.f("ck_drive_family_known"), "drive", type_="check")
    op.create_check_constraint(op.f("ck_drive_family_not_blank"), "drive", _NAMED)


def downgrade() -> None:
    op.drop_constraint(op.f("ck_drive_family_not_blank"), "drive", type_="check")
    op.create_check_constraint(op.f("ck_drive_family_known"), "drive", _KNOWN)
