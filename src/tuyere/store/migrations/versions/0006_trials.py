"""trials: readings before and after one change"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "trial",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("drive_id", sa.Uuid(), nullable=False),
        sa.Column("change", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("typed", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("values_si", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("summary", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.CheckConstraint("length(btrim(change)) BETWEEN 1 AND 120", name=op.f("ck_trial_change_not_blank")),
        sa.ForeignKeyConstraint(["drive_id"], ["drive.id"], name=op.f("fk_trial_drive_id_drive")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_trial_made_by_person")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_trial")),
    )
    op.create_index(op.f("ix_trial_drive_id"), "trial", ["drive_id"], unique=False)
    op.execute("CREATE TRIGGER keeps_what_was_written BEFORE UPDATE OR DELETE ON trial FOR EACH ROW EXECUTE FUNCTION refuse_change()")


def downgrade() -> None:
    op.drop_index(op.f("ix_trial_drive_id"), table_name="trial")
    op.drop_table("trial")
