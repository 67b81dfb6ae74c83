"""The role that serves requests: it owns nothing, and may read and write rows only as far as each table's nature allows.

Tables and migrations belong to another role. What is written once (audit, surveys, values) the serving role can neither change nor
delete, whatever a fault in the application asks for, and of other rows only the columns that are meant to change: striking out, closing,
correcting and restoring have theirs. It cannot empty or drop a table or turn a trigger off either.
"""

from psycopg import sql
from sqlalchemy import Engine

from tuyere.store.every_table import METADATA

APPEND = "SELECT, INSERT"
PASSING = "SELECT, INSERT, UPDATE, DELETE"  # rows that are of use for a while only


def _change(*columns: str) -> str:
    """New rows, and of a row that is there these columns alone: what says what was done, to what, by whom and when is none of them."""
    return f"SELECT, INSERT, UPDATE ({', '.join(columns)})"


RIGHTS = {
    "audit_entry": APPEND,
    "belt_keeper": APPEND,
    "belt_life": APPEND,
    "configuration": APPEND,
    "counter_slip": APPEND,
    "cross_reference": _change("part_number", "designation", "machine", "note", "loaded_by", "row_version"),
    "device": _change("label", "allowed_at", "allowed_by", "ended_at"),
    "drive": _change(
        "name",
        "family",
        "part_number",
        "note",
        "design_speed_rad_per_s",
        "design_airflow_m3_per_s",
        "design_pressure_pa",
        "design_amps_a",
        "design_turns",
        "retired_at",
        "typed",
        "row_version",
    ),
    "drive_due": PASSING,
    "drive_state": PASSING,
    "due": _change("due_on", "done_at", "done_by", "answer", "why", "row_version"),
    "due_answer": APPEND,
    "due_rule": _change("event", "what", "after_hours", "after_days", "after_months", "repeats", "kinds", "page", "used", "row_version"),
    "finding": _change(
        "words",
        "place",
        "machine_state",
        "closed_at",
        "closed_by",
        "closed_how",
        "closed_why",
        "taken_up_at",
        "taken_up_by",
        "row_version",
    ),
    "first_lead_code": "SELECT, UPDATE (used_at)",
    "happened": _change("struck_at", "row_version"),
    "hour_reading": _change("struck_at", "row_version"),
    "inspection_round": _change("finished_at", "finished_by", "note", "said", "row_version"),
    "job": _change(
        "steps",
        "numbers",
        "own_version",
        "began_at",
        "finished_at",
        "dropped_at",
        "ended_by",
        "note",
        "safety_note",
        "said",
        "unread",
        "raised",
        "row_version",
    ),
    "job_step": _change("state", "words", "at", "by", "row_version"),
    "kept_answer": PASSING,
    "laid_up": _change("ended_at", "row_version"),
    "machine": _change("name", "kind", "place", "traits", "row_version"),
    "machine_steps": APPEND,
    "membership": _change("role", "ended_at"),
    "passkey": _change("sign_count", "used_at", "removed_at"),
    "person": _change("passphrase_hash", "reset_hash", "reset_until", "handed_over", "code_secret", "code_step", "row_version"),
    "photo": _change("finding_id", "note", "turned", "arrows", "put_away_at", "row_version"),
    "pulse": "SELECT, UPDATE (at)",
    "reading": _change("struck_at", "struck_by", "row_version"),
    "reading_value": APPEND,
    "round_answer": _change("found", "words", "finding_id", "at", "by", "row_version"),
    "shop_list": _change("put_away_at", "row_version"),
    "sign_in": _change("seen_at", "ended_at", "ended_why", "factor"),
    "sign_in_failure": PASSING,
    "site": _change("zone", "leads_factor", "row_version"),
    "stage": APPEND,
    "temporary_fix": _change("off_at", "off_by", "row_version"),
    "trial": APPEND,
    "what_if": _change("name", "typed", "put_away_at", "row_version"),
    "wheel": APPEND,
}


def grant(owner: Engine, role: str) -> None:
    """Give `role` its rights on every table, and take all others from it and from the public. Nothing where it owns the tables."""
    name = sql.Identifier(role)
    with owner.begin() as connection:
        raw = connection.connection.cursor()
        raw.execute("SELECT pg_advisory_xact_lock(7021141), current_database()")
        row = raw.fetchone()
        assert row
        raw.execute("SELECT current_user")
        if raw.fetchone() == (role,):
            return
        database = sql.Identifier(row[1])
        for statement in (
            "REVOKE ALL ON DATABASE {database} FROM PUBLIC",
            "GRANT CONNECT ON DATABASE {database} TO {name}",
            "REVOKE ALL ON SCHEMA public FROM PUBLIC",
            "REVOKE ALL ON SCHEMA public FROM {name}",
            "GRANT USAGE ON SCHEMA public TO {name}",
            "REVOKE ALL ON ALL TABLES IN SCHEMA public FROM {name}",
            "GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO {name}",
        ):
            raw.execute(sql.SQL(statement).format(database=database, name=name))
        for table in METADATA.tables:
            raw.execute(sql.SQL("GRANT {} ON {} TO {}").format(sql.SQL(RIGHTS[table]), sql.Identifier(table), name))
