"""Each person signs in by a name that is nobody else's, the oldest by the plain one; a passphrase that was handed over is for once."""

import json

import sqlalchemy as sa
from alembic import op

from tuyere.store.names import name_key

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None

# Who is known from when: by the first that was written about or by them. Of whom nothing was, was there before all that.
OLDEST_FIRST = """
SELECT p.id, p.name FROM person p
LEFT JOIN LATERAL (SELECT min(at) AS at FROM audit_entry a WHERE a.person_id = p.id OR a.subject_id = p.id) known ON true
ORDER BY known.at NULLS FIRST, p.id
"""
RENAMED = "renamed: the name looked like another's"


def upgrade() -> None:
    op.add_column("person", sa.Column("handed_over", sa.Boolean(), server_default=sa.false(), nullable=False))
    connection = op.get_bind()
    people = connection.execute(sa.text(OLDEST_FIRST)).all()
    names, keys = {name for _, name in people}, set()
    plain: dict[str, object] = {}
    for person_id, name in people:
        plain.setdefault(name_key(name), person_id)
    told = {}
    for person_id, name in people:
        wanted, number = name, 1
        while plain.get(name_key(wanted), person_id) != person_id or name_key(wanted) in keys or (wanted != name and wanted in names):
            number += 1
            wanted = f"{name[:112]} {number}"
        keys.add(name_key(wanted))
        told[person_id] = (name, wanted)
    # First all away from each other: a key may change hands.
    connection.execute(sa.text("UPDATE person SET name_key = 'moving ' || id"))
    for person_id, (name, wanted) in told.items():
        one = {"id": person_id, "name": wanted, "key": name_key(wanted)}
        connection.execute(sa.text("UPDATE person SET name = :name, name_key = :key WHERE id = :id"), one)
        if wanted != name:
            entry = {"id": person_id, "action": RENAMED, "changes": json.dumps({"name": [name, wanted]})}
            connection.execute(
                sa.text(
                    "INSERT INTO audit_entry (at, action, subject_table, subject_id, changes)"
                    " VALUES (now(), :action, 'person', :id, CAST(:changes AS jsonb))"
                ),
                entry,
            )


def downgrade() -> None:
    op.drop_column("person", "handed_over")
