"""What was done stays as it was written, and a job or a round that ended says what it said: the database holds to it, for everybody."""

from alembic import op

revision = "0022"
down_revision = "0021"
branch_labels = None
depends_on = None

# Struck out or restored, nothing else.
STRIKE_ONLY = """
CREATE FUNCTION strike_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF to_jsonb(NEW) - '{struck_at,row_version}'::text[] <> to_jsonb(OLD) - '{struck_at,row_version}'::text[] THEN
    RAISE EXCEPTION '% is struck out, not changed', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""
ENDED_JOB = """
CREATE FUNCTION ended_job_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.finished_at IS NOT NULL OR OLD.dropped_at IS NOT NULL THEN
    RAISE EXCEPTION 'a job that ended is not changed' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""
ENDED_ROUND = """
CREATE FUNCTION ended_round_stays() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF OLD.finished_at IS NOT NULL THEN
    RAISE EXCEPTION 'a round that ended is not changed' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""
# A new line under what has ended, too; but who owns the tables brings rows back from a backup in any order.
ENDED_JOB_STEP = """
CREATE FUNCTION ended_job_steps_stay() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' AND pg_has_role(current_user, (SELECT relowner FROM pg_class WHERE oid = TG_RELID), 'MEMBER') THEN
    RETURN NEW;
  END IF;
  IF EXISTS (SELECT 1 FROM public.job WHERE id = NEW.job_id AND (finished_at IS NOT NULL OR dropped_at IS NOT NULL)) THEN
    RAISE EXCEPTION 'a job that ended takes no step' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""
ENDED_ROUND_ANSWER = """
CREATE FUNCTION ended_round_answers_stay() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_OP = 'INSERT' AND pg_has_role(current_user, (SELECT relowner FROM pg_class WHERE oid = TG_RELID), 'MEMBER') THEN
    RETURN NEW;
  END IF;
  IF EXISTS (SELECT 1 FROM public.inspection_round WHERE id = NEW.round_id AND finished_at IS NOT NULL) THEN
    RAISE EXCEPTION 'a round that ended takes no answer' USING ERRCODE = 'restrict_violation';
  END IF;
  RETURN NEW;
END $$
"""
FUNCTIONS = (STRIKE_ONLY, ENDED_JOB, ENDED_ROUND, ENDED_JOB_STEP, ENDED_ROUND_ANSWER)
TRIGGERS = (
    ("happened", "strikes_only", "UPDATE", "strike_only"),
    ("hour_reading", "strikes_only", "UPDATE", "strike_only"),
    ("job", "stays_as_it_ended", "UPDATE", "ended_job_stays"),
    ("inspection_round", "stays_as_it_ended", "UPDATE", "ended_round_stays"),
    ("job_step", "stays_as_it_ended", "INSERT OR UPDATE", "ended_job_steps_stay"),
    ("round_answer", "stays_as_it_ended", "INSERT OR UPDATE", "ended_round_answers_stay"),
)


def upgrade() -> None:
    for function in FUNCTIONS:
        op.execute(function)
    for table, name, when, function in TRIGGERS:
        op.execute(f"CREATE TRIGGER {name} BEFORE {when} ON {table} FOR EACH ROW EXECUTE FUNCTION {function}()")


def downgrade() -> None:
    for table, name, _, _ in TRIGGERS:
        op.execute(f"DROP TRIGGER {name} ON {table}")
    for function in ("strike_only", "ended_job_stays", "ended_round_stays", "ended_job_steps_stay", "ended_round_answers_stay"):
        op.execute(f"DROP FUNCTION {function}")
