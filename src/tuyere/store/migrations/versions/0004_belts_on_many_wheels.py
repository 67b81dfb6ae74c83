"""belts on many wheels: how a belt lies, shafts shared, keepers, a carriage"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "belt_keeper",
        sa.Column("id", sa.Uuid(), nullable=False),
        sa.Column("stage_id", sa.Uuid(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("side", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("x_m", sa.Float(), nullable=True),
        sa.Column("y_m", sa.Float(), nullable=True),
        sa.Column("gap_m", sa.Float(), nullable=True),
        sa.Column("least_m", sa.Float(), nullable=True),
        sa.Column("most_m", sa.Float(), nullable=True),
        sa.CheckConstraint("(x_m IS NULL) = (y_m IS NULL)", name=op.f("ck_belt_keeper_place_whole")),
        sa.CheckConstraint("gap_m >= 0", name=op.f("ck_belt_keeper_gap_not_negative")),
        sa.CheckConstraint("length(btrim(name)) BETWEEN 1 AND 120", name=op.f("ck_belt_keeper_name_not_blank")),
        sa.CheckConstraint("side IN ('inside', 'back')", name=op.f("ck_belt_keeper_side_known")),
        sa.CheckConstraint("state IN ('in place', 'worn off', 'missing')", name=op.f("ck_belt_keeper_state_known")),
        sa.ForeignKeyConstraint(["stage_id"], ["stage.id"], name=op.f("fk_belt_keeper_stage_id_stage")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_belt_keeper")),
        sa.UniqueConstraint("stage_id", "position", name=op.f("uq_belt_keeper_stage_id_position")),
    )
    op.create_index(op.f("ix_belt_keeper_stage_id"), "belt_keeper", ["stage_id"], unique=False)
    op.execute("CREATE TRIGGER keeps_what_was_written BEFORE UPDATE OR DELETE ON belt_keeper FOR EACH ROW EXECUTE FUNCTION refuse_change()")
    op.add_column("finding", sa.Column("subject", sa.String(), server_default="", nullable=False))
    op.add_column("stage", sa.Column("lay", sa.String(), server_default="open", nullable=False))
    op.add_column("stage", sa.Column("carriage_from", sa.Integer(), nullable=True))
    op.add_column("stage", sa.Column("carriage_m", sa.Float(), nullable=True))
    op.add_column("stage", sa.Column("carriage_length_m", sa.Float(), nullable=True))
    op.create_check_constraint(op.f("ck_stage_lay_known"), "stage", "lay IN ('open', 'crossed', 'quarter-turn')")
    op.create_check_constraint(op.f("ck_stage_carriage_not_negative"), "stage", "carriage_m >= 0 AND carriage_length_m >= 0")
    op.add_column("wheel", sa.Column("shaft", sa.Integer(), nullable=True))
    op.add_column("wheel", sa.Column("power_w", sa.Float(), nullable=True))
    op.add_column("wheel", sa.Column("takes_up", sa.Boolean(), server_default="false", nullable=False))


def downgrade() -> None:
    for column in ("takes_up", "power_w", "shaft"):
        op.drop_column("wheel", column)
    for column in ("carriage_length_m", "carriage_m", "carriage_from", "lay"):
        op.drop_column("stage", column)
    op.drop_column("finding", "subject")
    op.drop_table("belt_keeper")
