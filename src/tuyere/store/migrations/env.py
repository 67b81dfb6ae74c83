"""Alembic's environment: runs on the engine that `database.migrate` hands over, under one lock for all processes."""

from alembic import context
from sqlalchemy import Engine, text

from tuyere.store.every_table import METADATA

MIGRATION_LOCK = 7_021_140

engine: Engine = context.config.attributes["engine"]
with engine.connect() as connection:
    connection.execute(text("SELECT pg_advisory_lock(:lock)"), {"lock": MIGRATION_LOCK})
    context.configure(connection=connection, target_metadata=METADATA, compare_type=True)
    with context.begin_transaction():
        context.run_migrations()
    connection.commit()
