"""jobs with their steps, the steps people added on a machine, and photographs of a step"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.create_table(
        "job",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("due", sa.String(), nullable=False),
        sa.Column("due_what", sa.String(), nullable=False),
        sa.Column("asked", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("steps", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("numbers", postgresql.JSONB(), server_default="{}", nullable=False),
        sa.Column("own_version", sa.Integer(), nullable=False),
        sa.Column("planned_at", TIME, nullable=False),
        sa.Column("planned_by", sa.Uuid(), nullable=False),
        sa.Column("began_at", TIME, nullable=True),
        sa.Column("finished_at", TIME, nullable=True),
        sa.Column("dropped_at", TIME, nullable=True),
        sa.Column("ended_by", sa.Uuid(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("safety_note", sa.String(), nullable=False),
        sa.Column("said", sa.String(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("finished_at IS NULL OR dropped_at IS NULL", name=op.f("ck_job_ended_once")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_job_drive_id_drive")),
        sa.ForeignKeyConstraint(["planned_by"], ["person.id"], name=op.f("fk_job_planned_by_person")),
        sa.ForeignKeyConstraint(["ended_by"], ["person.id"], name=op.f("fk_job_ended_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_job")),
    )
    op.create_index("job_of_drive", "job", ["drive_id", "planned_at"])
    op.create_table(
        "job_step",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("job_id", sa.Uuid(), nullable=False),
        sa.Column("step", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("at", TIME, nullable=False),
        sa.Column("by", sa.Uuid(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("state IN ('', 'done', 'passed')", name=op.f("ck_job_step_state_known")),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_job_step_job_id_job")),
        sa.ForeignKeyConstraint(["by"], ["person.id"], name=op.f("fk_job_step_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_job_step")),
        sa.UniqueConstraint("job_id", "step", name=op.f("uq_job_step_job_id_step")),
    )
    op.create_table(
        "machine_steps",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("machine_id", sa.Uuid(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("steps", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("made_at", TIME, nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.ForeignKeyConstraint(["machine_id"], ["machine.id"], name=op.f("fk_machine_steps_machine_id_machine")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_machine_steps_made_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_machine_steps")),
        sa.UniqueConstraint("machine_id", "kind", "version", name=op.f("uq_machine_steps_machine_id_kind_version")),
    )
    op.add_column("photo", sa.Column("job_id", sa.Uuid(), nullable=True))
    op.add_column("photo", sa.Column("step", sa.String(), nullable=False, server_default=""))
    op.create_foreign_key(op.f("fk_photo_job_id_job"), "photo", "job", ["job_id"], ["id"])
    op.create_index(op.f("ix_photo_job_id"), "photo", ["job_id"])


def downgrade() -> None:
    op.drop_index(op.f("ix_photo_job_id"), "photo")
    op.drop_constraint(op.f("fk_photo_job_id_job"), "photo")
    op.drop_column("photo", "step")
    op.drop_column("photo", "job_id")
    op.drop_table("machine_steps")
    op.drop_table("job_step")
    op.drop_table("job")
