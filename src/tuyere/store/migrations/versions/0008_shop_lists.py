"""shop lists: a shop's own parts and ratings"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "shop_list",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("site_id", sa.Uuid(), nullable=False),
        sa.Column("what", sa.String(), nullable=False),
        sa.Column("file_name", sa.String(), nullable=False),
        sa.Column("content", sa.String(), nullable=False),
        sa.Column("rows_taken", sa.Integer(), nullable=False),
        sa.Column("loaded_by", sa.Uuid(), nullable=False),
        sa.Column("loaded_at", sa.DateTime(timezone=True), nullable=False),
        sa.Column("put_away_at", sa.DateTime(timezone=True), nullable=True),
        sa.Column("row_version", sa.Integer(), server_default="1", nullable=False),
        sa.CheckConstraint("what IN ('parts', 'ratings')", name=op.f("ck_shop_list_known_what")),
        sa.ForeignKeyConstraint(["loaded_by"], ["person.id"], name=op.f("fk_shop_list_loaded_by_person")),
        sa.ForeignKeyConstraint(["site_id"], ["site.id"], name=op.f("fk_shop_list_site_id_site")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_shop_list")),
    )
    op.create_index(op.f("ix_shop_list_site_id"), "shop_list", ["site_id"], unique=False)


def downgrade() -> None:
    op.drop_table("shop_list")
