"""what-ifs: drives thought through on the bench"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "what_if",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("made_by", sa.Uuid(), nullable=False),
        sa.Column("made_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("put_away_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("typed", postgresql.JSONB(astext_type=sa.Text()), server_default="{}", nullable=False),
        sa.Column("row_version", sa.Integer(), server_default="1", nullable=False),
        sa.CheckConstraint("length(btrim(name)) BETWEEN 1 AND 120", name=op.f("ck_what_if_name_not_blank")),
        sa.ForeignKeyConstraint(["made_by"], ["person.id"], name=op.f("fk_what_if_made_by_person")),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_what_if_site_id_site")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_what_if")),
    )
    op.create_index(op.f("ix_what_if_site_id"), "what_if", ["site_id"], unique=False)


def downgrade() -> None:
    op.drop_table("what_if")
