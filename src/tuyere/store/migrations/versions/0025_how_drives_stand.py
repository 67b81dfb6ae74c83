"""What the lists of drives need, kept by the write that changes it."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0025"
down_revision = "0024"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("CREATE EXTENSION IF NOT EXISTS pg_trgm")
    text = {"server_default": "", "nullable": False}
    op.create_table(
        "drive_state",
        sa.Column("drive_id", sa.Uuid(), sa.ForeignKey("drive.id", name=op.f("fk_drive_state_drive_id_drive")), nullable=False),
        sa.Column("site_id", sa.Uuid(), sa.ForeignKey("site.id", name=op.f("fk_drive_state_site_id_site")), nullable=False),
        sa.Column("retired", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.Column("said", sa.Integer(), server_default="5", nullable=False),
        sa.Column("why", sa.String(), **text),
        sa.Column("page", sa.String(), **text),
        sa.Column("due_on", sa.Date()),
        sa.Column("due_what", sa.String(), **text),
        sa.Column("due_page", sa.String(), **text),
        sa.Column("tension_at", sa.DateTime(timezone=True)),
        sa.Column("tension_tone", sa.String(), **text),
        sa.Column("tension_says", sa.String(), **text),
        sa.Column("seen_at", sa.DateTime(timezone=True)),
        sa.Column("area", sa.String(), **text),
        sa.Column("belts", sa.String(), **text),
        sa.Column("words", sa.String(), **text),
        sa.Column("sketch", postgresql.JSONB()),
        sa.Column("stations", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("solved_for", sa.String(), **text),
        sa.Column("stale", sa.Boolean(), server_default=sa.false(), nullable=False),
        sa.CheckConstraint("said IN (0, 2, 4, 5)", name=op.f("ck_drive_state_said_known")),
        sa.PrimaryKeyConstraint("drive_id", name=op.f("pk_drive_state")),
    )
    op.create_index("ix_drive_state_site", "drive_state", ["site_id", "retired"])
    op.create_index("ix_drive_state_words", "drive_state", ["words"], postgresql_using="gin", postgresql_ops={"words": "gin_trgm_ops"})
    op.create_index("ix_drive_state_stale", "drive_state", ["site_id"], postgresql_where=sa.text("stale"))
    op.create_table(
        "drive_due",
        sa.Column("drive_id", sa.Uuid(), sa.ForeignKey("drive.id", name=op.f("fk_drive_due_drive_id_drive")), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("site_id", sa.Uuid(), sa.ForeignKey("site.id", name=op.f("fk_drive_due_site_id_site")), nullable=False),
        sa.Column("promised", sa.Boolean(), nullable=False),
        sa.Column("what", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("due_on", sa.Date()),
        sa.Column("said", sa.String(), nullable=False),
        sa.Column("because", sa.String(), nullable=False),
        sa.Column("page", sa.String(), nullable=False),
        sa.Column("resting", sa.Boolean(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("drive_id", "key", name=op.f("pk_drive_due")),
    )
    op.create_index("ix_drive_due_site", "drive_due", ["site_id", "due_on"], postgresql_where=sa.text("NOT resting"))
    # Every drive, to be worked out when the start has come so far.
    op.execute(
        "INSERT INTO drive_state (drive_id, site_id, retired, stale)"
        " SELECT drive.id, machine.site_id, drive.retired_at IS NOT NULL, true FROM drive JOIN machine ON machine.id = drive.machine_id"
    )


def downgrade() -> None:
    op.drop_table("drive_due")
    op.drop_table("drive_state")
    op.execute("DROP EXTENSION IF EXISTS pg_trgm")
