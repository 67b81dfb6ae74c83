"""A second factor of a person: passkeys, a time-based code; and the devices on which a lead lets sessions last."""

import sqlalchemy as sa
from alembic import op

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None


def upgrade() -> None:
    text, when = sa.String(), sa.DateTime(timezone=True)
    op.add_column("person", sa.Column("code_secret", text, nullable=True))
    op.add_column("person", sa.Column("code_step", sa.BigInteger(), server_default="0", nullable=False))
    op.add_column("site", sa.Column("leads_factor", sa.Boolean(), server_default=sa.false(), nullable=False))
    op.add_column("sign_in", sa.Column("factor", text, server_default="", nullable=False))
    op.add_column("sign_in", sa.Column("device_id", text, server_default="", nullable=False))
    op.create_table(
        "passkey",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("credential_id", text, nullable=False),
        sa.Column("public_key", sa.LargeBinary(), nullable=False),
        sa.Column("sign_count", sa.BigInteger(), nullable=False),
        sa.Column("name", text, nullable=False),
        sa.Column("added_at", when, nullable=False),
        sa.Column("used_at", when, nullable=True),
        sa.Column("removed_at", when, nullable=True),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_passkey_person_id_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_passkey")),
        sa.UniqueConstraint("credential_id", name=op.f("uq_passkey_credential_id")),
    )
    op.create_index(op.f("ix_passkey_person_id"), "passkey", ["person_id"])
    op.create_table(
        "device",
        sa.Column("id", text, nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("label", text, nullable=False),
        sa.Column("allowed_at", when, nullable=False),
        sa.Column("allowed_by", sa.Uuid(), nullable=False),
        sa.Column("ended_at", when, nullable=True),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_device_site_id_site")),
        sa.ForeignKeyConstraint(["allowed_by"], ["person.id"], name=op.f("fk_device_allowed_by_person")),
        sa.PrimaryKeyConstraint("id", "site_id", name=op.f("pk_device")),
    )


def downgrade() -> None:
    op.drop_table("device")
    op.drop_table("passkey")
    for table, column in (
        ("sign_in", "device_id"),
        ("sign_in", "factor"),
        ("site", "leads_factor"),
        ("person", "code_step"),
        ("person", "code_secret"),
    ):
        op.drop_column(table, column)
