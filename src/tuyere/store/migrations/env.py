"""Alembic's environment: runs on the engine that `database.migrate` hands over, under one lock for all processes."""

from alembic import context
from sqlalchemy import Engine, text
from sqlmodel import SQLModel

from tuyere.store import dues_tables, factor_tables, inspect_tables, job_tables, tables  # noqa: F401  (fill SQLModel.metadata)

MIGRATION_LOCK = 7_021_140

engine: Engine = context.config.attributes["engine"]
with engine.connect() as connection:
    connection.execute(text("SELECT pg_advisory_lock(:lock)"), {"lock": MIGRATION_LOCK})
    context.configure(connection=connection, target_metadata=SQLModel.metadata, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
