"""surveys by driver, machine and stages, each tagged with its kind of drive; fields that another kind left behind go"""

import json

import sqlalchemy as sa
from alembic import op

from tuyere.core.drive.old_survey import by_stages, is_old

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    bind = op.get_bind()
    # What is fitted is append-only, and a trigger sees to it: it sleeps while the old words are written in the new order.
    op.execute("ALTER TABLE configuration DISABLE TRIGGER USER")
    kept = bind.execute(sa.text("SELECT c.id, c.typed, d.family FROM configuration c JOIN drive d ON d.id = c.drive_id"))
    for row in kept.all():
        if is_old(row.typed):
            _put(bind, "configuration", row.id, by_stages(row.typed, row.typed.get("family") or row.family))
    op.execute("ALTER TABLE configuration ENABLE TRIGGER USER")
    op.execute("ALTER TABLE counter_slip DISABLE TRIGGER USER")
    for row in bind.execute(sa.text("SELECT id, typed FROM counter_slip")).all():
        asked = row.typed.get("asked", {})
        if is_old(asked.get("survey", {})):
            rest = {k: v for k, v in asked.items() if k != "family"}
            typed = {**row.typed, "asked": {**rest, "survey": by_stages(asked["survey"], asked.get("family", "v-belt"))}}
            _put(bind, "counter_slip", row.id, typed)
    op.execute("ALTER TABLE counter_slip ENABLE TRIGGER USER")


def _put(bind: sa.Connection, table: str, row_id: object, typed: object) -> None:
    bind.execute(sa.text(f"UPDATE {table} SET typed = cast(:typed AS jsonb) WHERE id = :id"), {"typed": json.dumps(typed), "id": row_id})


def downgrade() -> None:
    """Surveys by stages are refused by what was before: back is by a backup."""
