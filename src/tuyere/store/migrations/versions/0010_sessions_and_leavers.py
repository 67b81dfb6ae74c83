"""sessions that end, people who leave, one-time codes, and tries counted by name and place"""

import unicodedata

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    text = sa.String()
    when = sa.DateTime(timezone=True)
    op.create_table(
        "sign_in",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("began_at", when, nullable=False),
        sa.Column("seen_at", when, nullable=False),
        sa.Column("ended_at", when, nullable=True),
        sa.Column("ended_why", text, nullable=False),
        sa.Column("address", text, nullable=False),
        sa.Column("device", text, nullable=False),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_sign_in_person_id_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign_in")),
    )
    op.create_index(op.f("ix_sign_in_person_id"), "sign_in", ["person_id"])
    op.drop_table("sign_in_failure")  # minutes old at most: a change of shape need not carry them
    op.create_table(
        "sign_in_failure",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name_key", text, nullable=False),
        sa.Column("source", text, nullable=False),
        sa.Column("at", when, nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign_in_failure")),
    )
    op.create_index(op.f("ix_sign_in_failure_name_key"), "sign_in_failure", ["name_key"])
    op.create_index(op.f("ix_sign_in_failure_source"), "sign_in_failure", ["source"])
    op.add_column("membership", sa.Column("ended_at", when, nullable=True))
    op.add_column("person", sa.Column("name_key", text, nullable=True))
    op.add_column("person", sa.Column("reset_hash", text, nullable=True))
    op.add_column("person", sa.Column("reset_until", when, nullable=True))
    connection, seen = op.get_bind(), set()
    for person_id, name in connection.execute(sa.text("SELECT id, name FROM person ORDER BY name, id")).all():
        key = " ".join(unicodedata.normalize("NFKC", name).casefold().split())
        key = f"{key} {person_id}" if key in seen else key  # two people who already share one keep their names
        seen.add(key)
        connection.execute(sa.text("UPDATE person SET name_key = :key WHERE id = :id"), {"key": key, "id": person_id})
    op.alter_column("person", "name_key", nullable=False)
    op.create_unique_constraint(op.f("uq_person_name_key"), "person", ["name_key"])
    op.execute("""CREATE FUNCTION shop_list_put_away_only() RETURNS trigger LANGUAGE plpgsql AS $$
        BEGIN
          IF to_jsonb(NEW) - '{put_away_at,row_version}'::text[] <> to_jsonb(OLD) - '{put_away_at,row_version}'::text[] THEN
            RAISE EXCEPTION 'a list is put away, not changed' USING ERRCODE = 'restrict_violation';
          END IF;
          RETURN NEW;
        END $$""")
    op.execute("CREATE TRIGGER put_away_only BEFORE UPDATE ON shop_list FOR EACH ROW EXECUTE FUNCTION shop_list_put_away_only()")
    op.execute("CREATE TRIGGER keeps_lists BEFORE DELETE ON shop_list FOR EACH ROW EXECUTE FUNCTION refuse_change()")


def downgrade() -> None:
    op.execute("DROP TRIGGER put_away_only ON shop_list")
    op.execute("DROP TRIGGER keeps_lists ON shop_list")
    op.execute("DROP FUNCTION shop_list_put_away_only")
    op.drop_constraint(op.f("uq_person_name_key"), "person")
    for column in ("name_key", "reset_hash", "reset_until"):
        op.drop_column("person", column)
    op.drop_column("membership", "ended_at")
    op.drop_table("sign_in_failure")
    op.create_table(
        "sign_in_failure",
        sa.Column("id", sa.Integer(), nullable=False, primary_key=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
    )
    op.create_index(op.f("ix_sign_in_failure_name"), "sign_in_failure", ["name"])
    op.drop_table("sign_in")
