"""slips, get-home fixes, lives of sets, cross-reference"""

import sqlalchemy as sa
import sqlmodel
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

# What was written stays written; refuse_change() came with the first tables.
APPEND_ONLY = ("counter_slip", "belt_life")


def upgrade() -> None:
    op.create_table(
        "cross_reference",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("part_key", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("part_number", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("designation", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("machine", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("note", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("loaded_by", sa.Uuid(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("length(btrim(designation)) BETWEEN 1 AND 120", name=op.f("ck_cross_reference_designation_not_blank")),
        sa.CheckConstraint("length(btrim(part_number)) BETWEEN 1 AND 120", name=op.f("ck_cross_reference_part_number_not_blank")),
        sa.ForeignKeyConstraint(["loaded_by"], ["person.id"], name=op.f("fk_cross_reference_loaded_by_person")),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_cross_reference_site_id_site")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cross_reference")),
        sa.UniqueConstraint("site_id", "part_key", name=op.f("uq_cross_reference_site_id_part_key")),
    )
    op.create_index(op.f("ix_cross_reference_site_id"), "cross_reference", ["site_id"], unique=False)
    op.create_table(
        "belt_life",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("ended_on", sa.Date(), nullable=False),
        sa.Column("hours_h", sa.Float(), nullable=False),
        sa.Column("why", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("typed", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.CheckConstraint("hours_h > 0", name=op.f("ck_belt_life_hours_positive")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_belt_life_drive_id_drive")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_belt_life_made_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_belt_life")),
    )
    op.create_index(op.f("ix_belt_life_drive_id"), "belt_life", ["drive_id"], unique=False)
    op.create_table(
        "counter_slip",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("designation", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("typed", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("slip", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.CheckConstraint("length(btrim(designation)) BETWEEN 1 AND 120", name=op.f("ck_counter_slip_designation_not_blank")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_counter_slip_drive_id_drive")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_counter_slip_made_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_counter_slip")),
    )
    op.create_index("slip_of_drive", "counter_slip", ["drive_id", "made_at"], unique=False)
    op.create_table(
        "temporary_fix",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("due_id", sa.Uuid(), nullable=False),
        sa.Column("what", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("share", sa.Float(), nullable=False),
        sa.Column("share_text", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("run", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("off_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("off_by", sa.Uuid(), nullable=True),
        sa.Column("typed", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("length(btrim(what)) BETWEEN 1 AND 120", name=op.f("ck_temporary_fix_what_not_blank")),
        sa.CheckConstraint("share > 0", name=op.f("ck_temporary_fix_share_positive")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_temporary_fix_drive_id_drive")),
        sa.ForeignKeyConstraint(["due_id"], ["due.id"], name=op.f("fk_temporary_fix_due_id_due")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_temporary_fix_made_by_person")),
        sa.ForeignKeyConstraint(["off_by"], ["person.id"], name=op.f("fk_temporary_fix_off_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_temporary_fix")),
        sa.UniqueConstraint("due_id", name=op.f("uq_temporary_fix_due_id")),
    )
    op.create_index(op.f("ix_temporary_fix_drive_id"), "temporary_fix", ["drive_id"], unique=False)
    op.add_column("due", sa.Column("kind", sqlmodel.sql.sqltypes.AutoString(), server_default="look again", nullable=False))
    op.create_check_constraint(op.f("ck_due_kind_known"), "due", "kind IN ('look again', 'get-home fix')")
    for table in APPEND_ONLY:
        op.execute(
            f"CREATE TRIGGER keeps_what_was_written BEFORE UPDATE OR DELETE ON {table} FOR EACH ROW EXECUTE FUNCTION refuse_change()"
        )


def downgrade() -> None:
    op.drop_column("due", "kind")
    op.drop_index(op.f("ix_temporary_fix_drive_id"), table_name="temporary_fix")
    op.drop_table("temporary_fix")
    op.drop_index("slip_of_drive", table_name="counter_slip")
    op.drop_table("counter_slip")
    op.drop_index(op.f("ix_belt_life_drive_id"), table_name="belt_life")
    op.drop_table("belt_life")
    op.drop_index(op.f("ix_cross_reference_site_id"), table_name="cross_reference")
    op.drop_table("cross_reference")
