"""photographs of findings, rounds with a checklist, and the page that answers a promise"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None

TIME = sa.DateTime(timezone=True)


def upgrade() -> None:
    op.add_column("due", sa.Column("page", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "photo",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("finding_id", sa.Uuid(), nullable=True),
        sa.Column("taken_at", TIME, nullable=False),
        sa.Column("taken_by", sa.Uuid(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("turned", sa.Integer(), nullable=False),
        sa.Column("arrows", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("thumb", sa.LargeBinary(), nullable=False),
        sa.Column("put_away_at", TIME, nullable=True),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("turned IN (0, 90, 180, 270)", name=op.f("ck_photo_turned_by_quarters")),
        sa.CheckConstraint("octet_length(content) <= 2097152", name=op.f("ck_photo_not_too_large")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_photo_drive_id_drive")),
        sa.ForeignKeyConstraint(["finding_id"], ["finding.id"], name=op.f("fk_photo_finding_id_finding")),
        sa.ForeignKeyConstraint(["taken_by"], ["person.id"], name=op.f("fk_photo_taken_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_photo")),
    )
    op.create_index("photo_of_drive", "photo", ["drive_id", "taken_at"])
    op.create_index(op.f("ix_photo_finding_id"), "photo", ["finding_id"])
    op.create_table(
        "inspection_round",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("depth", sa.String(), nullable=False),
        sa.Column("items", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("began_at", TIME, nullable=False),
        sa.Column("began_by", sa.Uuid(), nullable=False),
        sa.Column("finished_at", TIME, nullable=True),
        sa.Column("finished_by", sa.Uuid(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("said", sa.String(), server_default="", nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("depth IN ('quick', 'usual', 'whole')", name=op.f("ck_inspection_round_depth_known")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_inspection_round_drive_id_drive")),
        sa.ForeignKeyConstraint(["began_by"], ["person.id"], name=op.f("fk_inspection_round_began_by_person")),
        sa.ForeignKeyConstraint(["finished_by"], ["person.id"], name=op.f("fk_inspection_round_finished_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_inspection_round")),
    )
    op.create_index("round_of_drive", "inspection_round", ["drive_id", "began_at"])
    op.create_table(
        "round_answer",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("round_id", sa.Uuid(), nullable=False),
        sa.Column("item", sa.String(), nullable=False),
        sa.Column("found", sa.String(), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("finding_id", sa.Uuid(), nullable=True),
        sa.Column("at", TIME, nullable=False),
        sa.Column("by", sa.Uuid(), nullable=False),
        sa.Column("row_version", sa.Integer(), nullable=False),
        sa.CheckConstraint("found IN ('ok', 'not ok', 'cannot')", name=op.f("ck_round_answer_found_known")),
        sa.ForeignKeyConstraint(["round_id"], ["inspection_round.id"], name=op.f("fk_round_answer_round_id_inspection_round")),
        sa.ForeignKeyConstraint(["finding_id"], ["finding.id"], name=op.f("fk_round_answer_finding_id_finding")),
        sa.ForeignKeyConstraint(["by"], ["person.id"], name=op.f("fk_round_answer_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_round_answer")),
        sa.UniqueConstraint("round_id", "item", name=op.f("uq_round_answer_round_id_item")),
    )


def downgrade() -> None:
    op.drop_table("round_answer")
    op.drop_table("inspection_round")
    op.drop_table("photo")
    op.drop_column("due", "page")
