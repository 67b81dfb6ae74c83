"""The database connection: one engine a process."""

from pathlib import Path
from typing import TYPE_CHECKING

from sqlalchemy import Engine
from sqlmodel import create_engine

if TYPE_CHECKING:
    from alembic.config import Config

MIGRATIONS = Path(__file__).parent / "migrations"


# One request's patience with the record: a statement that takes longer, or waits longer for another's lock, is given up.
_PATIENCE = {"connect_timeout": 5, "options": "-c statement_timeout=20000 -c lock_timeout=5000"}


def engine_from(url: str, serving: bool = False) -> Engine:
    """An engine for a PostgreSQL URL (postgresql://...), using psycopg 3; `serving`: with limits to how long a request may wait."""
    return create_engine(
        url.replace("postgresql://", "postgresql+psycopg://", 1),
        pool_pre_ping=True,
        pool_size=8,
        connect_args=dict(_PATIENCE) if serving else {},
    )


def alembic_config(engine: Engine) -> "Config":
    """Alembic's configuration, bound to `engine`."""
    from alembic.config import Config  # here: only a start needs it, and every process of the server would wait for it

    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    config.attributes["engine"] = engine
    return config


def behind(engine: Engine) -> bool:
    """Whether the schema is not at the newest migration."""
    from alembic.runtime.migration import MigrationContext
    from alembic.script import ScriptDirectory

    with engine.connect() as connection:
        now = MigrationContext.configure(connection).get_current_heads()
    return set(now) != set(ScriptDirectory.from_config(alembic_config(engine)).get_heads())


def migrate(engine: Engine) -> None:
    """Bring the schema to the newest migration."""
    from alembic import command

    command.upgrade(alembic_config(engine), "head")
