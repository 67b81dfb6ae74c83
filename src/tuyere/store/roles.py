"""The role that serves requests: it owns nothing, and may read and write rows only as far as each table's nature allows.

Tables and migrations belong to another role. What is written once (audit, surveys, values) the serving role can neither change nor
delete, whatever a fault in the application asks for; it cannot empty or drop a table or turn a trigger off either.
"""

from psycopg import sql
from sqlalchemy import Engine
from sqlmodel import SQLModel

APPEND = "SELECT, INSERT"
CHANGE = "SELECT, INSERT, UPDATE"
PASSING = "SELECT, INSERT, UPDATE, DELETE"  # rows that are of use for a while only

RIGHTS = {
    "audit_entry": APPEND,
    "belt_keeper": APPEND,
    "belt_life": APPEND,
    "configuration": APPEND,
    "counter_slip": APPEND,
    "cross_reference": CHANGE,
    "drive": CHANGE,
    "due": CHANGE,
    "due_answer": APPEND,
    "due_rule": CHANGE,
    "finding": CHANGE,
    "first_lead_code": CHANGE,
    "happened": CHANGE,
    "hour_reading": CHANGE,
    "inspection_round": "SELECT, INSERT, UPDATE (finished_at, finished_by, note, said, row_version)",
    "job": "SELECT, INSERT, UPDATE (steps, numbers, own_version, began_at, finished_at, dropped_at, ended_by, note, safety_note, said,"
    " unread, raised, row_version)",
    "job_step": CHANGE,
    "kept_answer": PASSING,
    "laid_up": CHANGE,
    "machine": CHANGE,
    "machine_steps": APPEND,
    "membership": CHANGE,
    "person": CHANGE,
    "pulse": "SELECT, UPDATE (at)",
    "photo": "SELECT, INSERT, UPDATE (finding_id, note, turned, arrows, put_away_at, row_version)",
    "reading": CHANGE,
    "reading_value": APPEND,
    "round_answer": CHANGE,
    "shop_list": "SELECT, INSERT, UPDATE (put_away_at, row_version)",
    "sign_in": CHANGE,
    "sign_in_failure": PASSING,
    "site": "SELECT, INSERT, UPDATE (zone, row_version)",
    "stage": APPEND,
    "temporary_fix": CHANGE,
    "trial": APPEND,
    "what_if": CHANGE,
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
        for table in SQLModel.metadata.tables:
            raw.execute(sql.SQL("GRANT {} ON {} TO {}").format(sql.SQL(RIGHTS[table]), sql.Identifier(table), name))
