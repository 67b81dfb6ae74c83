"""what people saw and did: findings with a life, what happened at a drive, its hours, answers to dues, a site's own rules"""

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

TEXT, WHEN, ID, NUMBER = sa.String(), sa.DateTime(timezone=True), sa.Uuid(), sa.Float()
FINDING = ("sign", "words", "place", "page", "machine_state", "closed_how", "closed_why")
ONCE = ("due_answer",)
KEPT = ("happened", "hour_reading", "laid_up", "finding", "due")


def _column(name: str, kind: sa.types.TypeEngine, null: bool = False) -> sa.Column:
    return sa.Column(name, kind, nullable=null)


def _key(table: str, column: str, to: str) -> sa.ForeignKeyConstraint:
    return sa.ForeignKeyConstraint([column], [f"{to}.id"], name=op.f(f"fk_{table}_{column}_{to}"))


def _not_blank(table: str, column: str) -> sa.CheckConstraint:
    return sa.CheckConstraint(f"length(btrim({column})) BETWEEN 1 AND 120", name=op.f(f"ck_{table}_{column}_not_blank"))


def upgrade() -> None:
    op.add_column("site", sa.Column("zone", TEXT, nullable=False, server_default="UTC"))
    for name in FINDING:
        op.add_column("finding", sa.Column(name, TEXT, nullable=False, server_default=""))
    op.add_column("finding", _column("taken_up_at", WHEN, True))
    for name in ("taken_up_by", "closed_by"):
        op.add_column("finding", _column(name, ID, True))
        op.create_foreign_key(op.f(f"fk_finding_{name}_person"), "finding", "person", [name], ["id"])
    op.execute("UPDATE finding SET closed_how = 'survey' WHERE closed_at IS NOT NULL")  # only a survey or a reading closed one until now
    op.create_check_constraint(
        op.f("ck_finding_closed_how_known"), "finding", "closed_how IN ('', 'said', 'reading', 'survey', 'fitted', 'job')"
    )
    op.create_check_constraint(op.f("ck_finding_closed_somehow"), "finding", "(closed_at IS NULL) = (closed_how = '')")
    for name in ("answer", "why"):
        op.add_column("due", sa.Column(name, TEXT, nullable=False, server_default=""))
    op.add_column("due", _column("done_by", ID, True))
    op.create_foreign_key(op.f("fk_due_done_by_person"), "due", "person", ["done_by"], ["id"])
    op.execute("UPDATE due SET answer = 'done' WHERE done_at IS NOT NULL")
    op.create_check_constraint(op.f("ck_due_answer_known"), "due", "answer IN ('', 'done', 'moved', 'not needed')")
    _happened()
    _hours()
    _answers()
    for table in KEPT:
        op.execute(f"CREATE TRIGGER keeps_what_was_written BEFORE DELETE ON {table} FOR EACH ROW EXECUTE FUNCTION refuse_change()")
    for table in ONCE:
        op.execute(
            f"CREATE TRIGGER keeps_what_was_written BEFORE UPDATE OR DELETE ON {table} FOR EACH ROW EXECUTE FUNCTION refuse_change()"
        )


def _happened() -> None:
    op.create_table(
        "happened",
        _column("id", ID),
        _column("drive_id", ID),
        _column("kind", TEXT),
        _column("at", WHEN),
        _column("what", TEXT),
        _column("came_off", TEXT),
        _column("why_off", TEXT),
        _column("interval_h", NUMBER, True),
        _column("made_by", ID),
        _column("made_at", WHEN),
        _column("struck_at", WHEN, True),
        _column("row_version", sa.Integer()),
        sa.CheckConstraint(
            "kind IN ('new set', 'new wheel', 're-tension', 'first start', 'oil change', 'get-home fix', 'get-home off', 'proposal "
            "fitted')",
            name=op.f("ck_happened_kind_known"),
        ),
        sa.CheckConstraint("interval_h > 0", name=op.f("ck_happened_interval_positive")),
        _key("happened", "drive_id", "drive"),
        _key("happened", "made_by", "person"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_happened")),
    )
    op.create_index("happened_at_drive", "happened", ["drive_id", "at"])


def _hours() -> None:
    op.create_table(
        "hour_reading",
        _column("id", ID),
        _column("drive_id", ID),
        _column("at", WHEN),
        _column("hours_h", NUMBER),
        _column("taken_by", ID),
        _column("struck_at", WHEN, True),
        _column("row_version", sa.Integer()),
        sa.CheckConstraint("hours_h >= 0", name=op.f("ck_hour_reading_hours_not_negative")),
        _key("hour_reading", "drive_id", "drive"),
        _key("hour_reading", "taken_by", "person"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hour_reading")),
    )
    op.create_index("hours_of_drive", "hour_reading", ["drive_id", "at"])
    op.create_table(
        "laid_up",
        _column("id", ID),
        _column("machine_id", ID),
        _column("began_at", WHEN),
        _column("ended_at", WHEN, True),
        _column("made_by", ID),
        _column("row_version", sa.Integer()),
        sa.CheckConstraint("ended_at > began_at", name=op.f("ck_laid_up_ends_after")),
        _key("laid_up", "machine_id", "machine"),
        _key("laid_up", "made_by", "person"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_laid_up")),
    )
    op.create_index(op.f("ix_laid_up_machine_id"), "laid_up", ["machine_id"])


def _answers() -> None:
    op.create_table(
        "due_answer",
        _column("id", ID),
        _column("drive_id", ID),
        _column("rule", TEXT),
        _column("answer", TEXT),
        _column("at", WHEN),
        _column("to_on", sa.Date(), True),
        _column("why", TEXT),
        _column("made_by", ID),
        sa.CheckConstraint("answer IN ('done', 'moved', 'not needed', 'taken back')", name=op.f("ck_due_answer_answer_known")),
        _not_blank("due_answer", "rule"),
        sa.CheckConstraint("(to_on IS NOT NULL) = (answer = 'moved')", name=op.f("ck_due_answer_moved_to")),
        _key("due_answer", "drive_id", "drive"),
        _key("due_answer", "made_by", "person"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_due_answer")),
    )
    op.create_index("answers_of_drive", "due_answer", ["drive_id", "at"])
    op.create_table(
        "due_rule",
        _column("id", ID),
        _column("site_id", ID),
        _column("key", TEXT),
        _column("event", TEXT),
        _column("what", TEXT),
        _column("after_hours", NUMBER, True),
        _column("after_days", NUMBER, True),
        _column("after_months", sa.Integer(), True),
        _column("repeats", sa.Boolean()),
        _column("kinds", TEXT),
        _column("page", TEXT),
        _column("used", sa.Boolean()),
        _column("row_version", sa.Integer()),
        *(_not_blank("due_rule", name) for name in ("key", "event", "what")),
        sa.CheckConstraint("after_hours > 0 AND after_days >= 0 AND after_months > 0", name=op.f("ck_due_rule_intervals_positive")),
        _key("due_rule", "site_id", "site"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_due_rule")),
        sa.UniqueConstraint("site_id", "key", name=op.f("uq_due_rule_site_id_key")),
    )
    op.create_index(op.f("ix_due_rule_site_id"), "due_rule", ["site_id"])


def downgrade() -> None:
    for table in (*KEPT, *ONCE):
        op.execute(f"DROP TRIGGER keeps_what_was_written ON {table}")
    for table in ("due_rule", "due_answer", "laid_up", "hour_reading", "happened"):
        op.drop_table(table)
    op.drop_constraint(op.f("ck_due_answer_known"), "due")
    for name in ("done_by", "why", "answer"):
        op.drop_column("due", name)
    op.drop_constraint(op.f("ck_finding_closed_somehow"), "finding")
    op.drop_constraint(op.f("ck_finding_closed_how_known"), "finding")
    for name in (*FINDING, "taken_up_at", "taken_up_by", "closed_by"):
        op.drop_column("finding", name)
    op.drop_column("site", "zone")
