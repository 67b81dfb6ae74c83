"""Every table there is: whoever asks for all of them (migrations, rights) imports this, and none is forgotten."""

from sqlmodel import SQLModel

from tuyere.store import dues_tables, factor_tables, inspect_tables, job_tables, people_tables, shop_tables, state_tables, tables

MODULES = (dues_tables, factor_tables, inspect_tables, job_tables, people_tables, shop_tables, state_tables, tables)
METADATA = SQLModel.metadata
