"""the first tables"""

import sqlalchemy as sa
import sqlmodel
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None

# What was written stays written: these tables take new rows only.
APPEND_ONLY = ("audit_entry", "configuration", "stage", "wheel", "reading_value")

REFUSE = """
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% keeps what was written: add a new row', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$
"""
# A reading may be struck out and restored, nothing else.
STRIKE_ONLY = """
CREATE FUNCTION reading_strike_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF to_jsonb(NEW) - '{struck_at,struck_by,row_version}'::text[] <> to_jsonb(OLD) - '{struck_at,struck_by,row_version}'::text[] THEN
    RAISE EXCEPTION 'a reading is struck out, not changed' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""


def upgrade() -> None:
    op.create_table(
        "first_lead_code",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("code_hash", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("used_at", sa.DateTime(timezone=True), nullable=True),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_first_lead_code")),
    )
    op.create_table(
        "person",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("passphrase_hash", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("one_click", sa.Boolean(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint(
            "length(btrim(name)) BETWEEN 1 AND 120",
            name=op.f("ck_person_name_not_blank"),
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_person")),
        sa.UniqueConstraint("name", name=op.f("uq_person_name")),
    )
    op.create_table(
        "sign_in_failure",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_sign_in_failure")),
    )
    op.create_index(op.f("ix_sign_in_failure_name"), "sign_in_failure", ["name"], unique=False)
    op.create_table(
        "site",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("length(btrim(name)) BETWEEN 1 AND 120", name=op.f("ck_site_name_not_blank")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_site")),
        sa.UniqueConstraint("name", name=op.f("uq_site_name")),
    )
    op.create_table(
        "audit_entry",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=True),
        sa.Column("site_id", sa.Uuid(), nullable=True),
        sa.Column("action", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("subject_table", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("subject_id", sa.Uuid(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=True),
        sa.Column("idempotency_key", sa.Uuid(), nullable=True),
        sa.Column(
            "changes",
            postgresql.JSONB(astext_type=sa.Text()),
            server_default="{}",
            nullable=False,
        ),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_audit_entry_person_id_person")),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_audit_entry_site_id_site")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_audit_entry")),
    )
    op.create_index(
        "audit_of_subject",
        "audit_entry",
        ["subject_table", "subject_id", "id"],
        unique=False,
    )
    op.create_table(
        "kept_answer",
        sa.Column("key", sa.Uuid(), nullable=False),
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("request_hash", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("status", sa.Integer(), nullable=False),
        sa.Column(
            "body",
            postgresql.JSONB(astext_type=sa.Text()),
            server_default="{}",
            nullable=False,
        ),
        sa.Column(
            "at",
            sa.DateTime(timezone=True),
            server_default=sa.text("now()"),
            nullable=False,
        ),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_kept_answer_person_id_person")),
        sa.PrimaryKeyConstraint("key", name=op.f("pk_kept_answer")),
    )
    op.create_table(
        "machine",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("kind", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("place", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint(
            "length(btrim(name)) BETWEEN 1 AND 120",
            name=op.f("ck_machine_name_not_blank"),
        ),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_machine_site_id_site")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_machine")),
        sa.UniqueConstraint("site_id", "name", name=op.f("uq_machine_site_id_name")),
    )
    op.create_index(op.f("ix_machine_site_id"), "machine", ["site_id"], unique=False)
    op.create_table(
        "membership",
        sa.Column("person_id", sa.Uuid(), nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("role", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.CheckConstraint(
            "role IN ('viewer', 'mechanic', 'lead')",
            name=op.f("ck_membership_role_known"),
        ),
        sa.ForeignKeyConstraint(["person_id"], ["person.id"], name=op.f("fk_membership_person_id_person")),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_membership_site_id_site")),
        sa.PrimaryKeyConstraint("person_id", "site_id", name=op.f("pk_membership")),
    )
    op.create_table(
        "drive",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("machine_id", sa.Uuid(), nullable=False),
        sa.Column("name", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("family", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("part_number", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("note", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("design_speed_rad_per_s", sa.Float(), nullable=True),
        sa.Column("design_airflow_m3_per_s", sa.Float(), nullable=True),
        sa.Column("design_pressure_pa", sa.Float(), nullable=True),
        sa.Column("design_amps_a", sa.Float(), nullable=True),
        sa.Column("design_turns", sa.Float(), nullable=True),
        sa.Column("retired_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column(
            "typed",
            postgresql.JSONB(astext_type=sa.Text()),
            server_default="{}",
            nullable=False,
        ),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint(
            "family IN ('v-belt', 'synchronous', 'flat belt', 'roller chain')",
            name=op.f("ck_drive_family_known"),
        ),
        sa.CheckConstraint("design_airflow_m3_per_s > 0", name=op.f("ck_drive_design_airflow_positive")),
        sa.CheckConstraint("design_amps_a > 0", name=op.f("ck_drive_design_amps_positive")),
        sa.CheckConstraint("design_pressure_pa > 0", name=op.f("ck_drive_design_pressure_positive")),
        sa.CheckConstraint("design_speed_rad_per_s > 0", name=op.f("ck_drive_design_speed_positive")),
        sa.CheckConstraint("design_turns >= 0", name=op.f("ck_drive_design_turns_not_negative")),
        sa.CheckConstraint(
            "length(btrim(name)) BETWEEN 1 AND 120",
            name=op.f("ck_drive_name_not_blank"),
        ),
        sa.ForeignKeyConstraint(["machine_id"], ["machine.id"], name=op.f("fk_drive_machine_id_machine")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_drive")),
        sa.UniqueConstraint("machine_id", "name", name=op.f("uq_drive_machine_id_name")),
    )
    op.create_index(op.f("ix_drive_machine_id"), "drive", ["machine_id"], unique=False)
    op.create_table(
        "configuration",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("sequence", sa.Integer(), nullable=False),
        sa.Column("standing", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("reason", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("driver_power_w", sa.Float(), nullable=True),
        sa.Column("driver_speed_rad_per_s", sa.Float(), nullable=True),
        sa.Column("driver_class", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("driven_class", sqlmodel.sql.sqltypes.AutoString(), nullable=True),
        sa.Column("hours_per_day", sa.Float(), nullable=True),
        sa.Column("rotation", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column(
            "typed",
            postgresql.JSONB(astext_type=sa.Text()),
            server_default="{}",
            nullable=False,
        ),
        sa.CheckConstraint(
            "standing IN ('as found', 'as left', 'corrected', 'proposed')",
            name=op.f("ck_configuration_standing_known"),
        ),
        sa.CheckConstraint("driver_power_w > 0", name=op.f("ck_configuration_driver_power_positive")),
        sa.CheckConstraint(
            "driver_speed_rad_per_s > 0",
            name=op.f("ck_configuration_driver_speed_positive"),
        ),
        sa.CheckConstraint(
            "hours_per_day > 0 AND hours_per_day <= 24",
            name=op.f("ck_configuration_hours_in_a_day"),
        ),
        sa.CheckConstraint("sequence >= 1", name=op.f("ck_configuration_sequence_from_one")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_configuration_drive_id_drive")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_configuration_made_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_configuration")),
        sa.UniqueConstraint("drive_id", "sequence", name=op.f("uq_configuration_drive_id_sequence")),
    )
    op.create_index(op.f("ix_configuration_drive_id"), "configuration", ["drive_id"], unique=False)
    op.create_table(
        "due",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("what", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("due_on", sa.Date(), nullable=False),
        sa.Column("done_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("length(btrim(what)) BETWEEN 1 AND 120", name=op.f("ck_due_what_not_blank")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_due_drive_id_drive")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_due")),
    )
    op.create_index(op.f("ix_due_drive_id"), "due", ["drive_id"], unique=False)
    op.create_table(
        "finding",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("what", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("weight", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("found_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("found_by", sa.Uuid(), nullable=False),
        sa.Column("closed_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("weight IN ('watch', 'stop')", name=op.f("ck_finding_weight_known")),
        sa.CheckConstraint(
            "length(btrim(what)) BETWEEN 1 AND 120",
            name=op.f("ck_finding_what_not_blank"),
        ),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_finding_drive_id_drive")),
        sa.ForeignKeyConstraint(["found_by"], ["person.id"], name=op.f("fk_finding_found_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_finding")),
    )
    op.create_index(op.f("ix_finding_drive_id"), "finding", ["drive_id"], unique=False)
    op.create_table(
        "reading",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("configuration_id", sa.Uuid(), nullable=True),
        sa.Column("stage_position", sa.Integer(), nullable=False),
        sa.Column("kind", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("taken_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("taken_by", sa.Uuid(), nullable=False),
        sa.Column("machine_state", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("method", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("tool", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("strand", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("belt_state", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("hour_meter_h", sa.Float(), nullable=True),
        sa.Column("note", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column(
            "summary",
            postgresql.JSONB(astext_type=sa.Text()),
            server_default="{}",
            nullable=False,
        ),
        sa.Column("struck_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("struck_by", sa.Uuid(), nullable=True),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint(
            "kind IN ('belt tension', 'shaft speed')",
            name=op.f("ck_reading_kind_known"),
        ),
        sa.CheckConstraint(
            "machine_state IN ('isolated', 'running, guard on')",
            name=op.f("ck_reading_machine_state_known"),
        ),
        sa.CheckConstraint("hour_meter_h >= 0", name=op.f("ck_reading_hour_meter_not_negative")),
        sa.ForeignKeyConstraint(
            ["configuration_id"],
            ["configuration.id"],
            name=op.f("fk_reading_configuration_id_configuration"),
        ),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_reading_drive_id_drive")),
        sa.ForeignKeyConstraint(["struck_by"], ["person.id"], name=op.f("fk_reading_struck_by_person")),
        sa.ForeignKeyConstraint(["taken_by"], ["person.id"], name=op.f("fk_reading_taken_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_reading")),
    )
    op.create_index("reading_of_drive", "reading", ["drive_id", "taken_at"], unique=False)
    op.create_table(
        "stage",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("configuration_id", sa.Uuid(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("section", sqlmodel.sql.sqltypes.AutoString(), nullable=True),
        sa.Column("belt", sqlmodel.sql.sqltypes.AutoString(), nullable=True),
        sa.Column("belt_count", sa.Integer(), nullable=True),
        sa.Column("centre_distance_m", sa.Float(), nullable=True),
        sa.Column("travel_in_m", sa.Float(), nullable=True),
        sa.Column("travel_out_m", sa.Float(), nullable=True),
        sa.Column("centre_line_deg", sa.Float(), nullable=False),
        sa.CheckConstraint("belt_count BETWEEN 1 AND 20", name=op.f("ck_stage_belt_count_sensible")),
        sa.CheckConstraint("centre_distance_m > 0", name=op.f("ck_stage_centre_distance_positive")),
        sa.CheckConstraint(
            "centre_line_deg >= 0 AND centre_line_deg < 360",
            name=op.f("ck_stage_centre_line_turn"),
        ),
        sa.CheckConstraint("position >= 1", name=op.f("ck_stage_position_from_one")),
        sa.CheckConstraint(
            "travel_in_m >= 0 AND travel_out_m >= 0",
            name=op.f("ck_stage_travel_not_negative"),
        ),
        sa.ForeignKeyConstraint(
            ["configuration_id"],
            ["configuration.id"],
            name=op.f("fk_stage_configuration_id_configuration"),
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_stage")),
        sa.UniqueConstraint(
            "configuration_id",
            "position",
            name=op.f("uq_stage_configuration_id_position"),
        ),
    )
    op.create_index(op.f("ix_stage_configuration_id"), "stage", ["configuration_id"], unique=False)
    op.create_table(
        "reading_value",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("reading_id", sa.Uuid(), nullable=False),
        sa.Column("quantity", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("kind", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("typed_text", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("typed_unit", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("origin", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("value_si", sa.Float(), nullable=False),
        sa.Column("std_si", sa.Float(), nullable=False),
        sa.CheckConstraint("std_si >= 0", name=op.f("ck_reading_value_std_not_negative")),
        sa.ForeignKeyConstraint(
            ["reading_id"],
            ["reading.id"],
            name=op.f("fk_reading_value_reading_id_reading"),
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_reading_value")),
        sa.UniqueConstraint(
            "reading_id",
            "quantity",
            "position",
            name=op.f("uq_reading_value_reading_id_quantity_position"),
        ),
    )
    op.create_index(
        op.f("ix_reading_value_reading_id"),
        "reading_value",
        ["reading_id"],
        unique=False,
    )
    op.create_table(
        "wheel",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("stage_id", sa.Uuid(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("role", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.Column("diameter_m", sa.Float(), nullable=True),
        sa.Column("basis", sqlmodel.sql.sqltypes.AutoString(), nullable=False),
        sa.CheckConstraint("basis IN ('outside', 'datum')", name=op.f("ck_wheel_basis_known")),
        sa.CheckConstraint("role IN ('driver', 'driven', 'idler')", name=op.f("ck_wheel_role_known")),
        sa.CheckConstraint("diameter_m > 0", name=op.f("ck_wheel_diameter_positive")),
        sa.ForeignKeyConstraint(["stage_id"], ["stage.id"], name=op.f("fk_wheel_stage_id_stage")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wheel")),
        sa.UniqueConstraint("stage_id", "position", name=op.f("uq_wheel_stage_id_position")),
    )
    op.create_index(op.f("ix_wheel_stage_id"), "wheel", ["stage_id"], unique=False)
    op.execute(REFUSE)
    for table in APPEND_ONLY:
        op.execute(
            f"CREATE TRIGGER keeps_what_was_written BEFORE UPDATE OR DELETE ON {table} FOR EACH ROW EXECUTE FUNCTION refuse_change()"
        )
    op.execute(STRIKE_ONLY)
    op.execute("CREATE TRIGGER strike_only BEFORE UPDATE ON reading FOR EACH ROW EXECUTE FUNCTION reading_strike_only()")
    op.execute("CREATE TRIGGER keeps_readings BEFORE DELETE ON reading FOR EACH ROW EXECUTE FUNCTION refuse_change()")


def downgrade() -> None:
    op.drop_index(op.f("ix_wheel_stage_id"), table_name="wheel")
    op.drop_table("wheel")
    op.drop_index(op.f("ix_reading_value_reading_id"), table_name="reading_value")
    op.drop_table("reading_value")
    op.drop_index(op.f("ix_stage_configuration_id"), table_name="stage")
    op.drop_table("stage")
    op.drop_index("reading_of_drive", table_name="reading")
    op.drop_table("reading")
    op.drop_index(op.f("ix_finding_drive_id"), table_name="finding")
    op.drop_table("finding")
    op.drop_index(op.f("ix_due_drive_id"), table_name="due")
    op.drop_table("due")
    op.drop_index(op.f("ix_configuration_drive_id"), table_name="configuration")
    op.drop_table("configuration")
    op.drop_index(op.f("ix_drive_machine_id"), table_name="drive")
    op.drop_table("drive")
    op.drop_table("membership")
    op.drop_index(op.f("ix_machine_site_id"), table_name="machine")
    op.drop_table("machine")
    op.drop_table("kept_answer")
    op.drop_index("audit_of_subject", table_name="audit_entry")
    op.drop_table("audit_entry")
    op.drop_table("site")
    op.drop_index(op.f("ix_sign_in_failure_name"), table_name="sign_in_failure")
    op.drop_table("sign_in_failure")
    op.drop_table("person")
    op.drop_table("first_lead_code")
    op.execute("DROP FUNCTION refuse_change CASCADE")
    op.execute("DROP FUNCTION reading_strike_only CASCADE")
