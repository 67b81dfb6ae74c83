"""The record: tables, migrations and the one way to write."""
