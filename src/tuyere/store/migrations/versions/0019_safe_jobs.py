"""What a machine is, as its people said.

Of a job what was answered, what nobody read, and the dues that it raised; chains that were oiled.
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None

BEFORE = ("new set", "new wheel", "re-tension", "first start", "oil change", "get-home fix", "get-home off", "proposal fitted")


def _events(*words: str) -> None:
    listed = ", ".join(f"'{w}'" for w in words)
    op.drop_constraint(op.f("ck_happened_kind_known"), "happened")
    op.create_check_constraint(op.f("ck_happened_kind_known"), "happened", f"kind IN ({listed})")


def upgrade() -> None:
    op.add_column("machine", sa.Column("traits", postgresql.JSONB(), server_default="{}", nullable=False))
    op.add_column("job", sa.Column("machine", postgresql.JSONB(), server_default="{}", nullable=False))
    op.add_column("job", sa.Column("unread", postgresql.JSONB(), server_default="[]", nullable=False))
    op.add_column("job", sa.Column("raised", postgresql.JSONB(), server_default="[]", nullable=False))
    _events(*BEFORE, "chain oiled")


def downgrade() -> None:
    op.execute("DELETE FROM happened WHERE kind = 'chain oiled'")
    _events(*BEFORE)
    for column in ("raised", "unread", "machine"):
        op.drop_column("job", column)
    op.drop_column("machine", "traits")
