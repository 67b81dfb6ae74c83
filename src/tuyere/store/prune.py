"""What is kept for a while only, and then thrown away: answers to repeated writes, failed sign-ins, sessions long ended."""

from datetime import timedelta

from sqlalchemy import Engine
from sqlmodel import Session, col, delete, or_

from tuyere.store.clock import now
from tuyere.store.people_tables import SignIn, SignInFailure
from tuyere.store.tables import KeptAnswer

KEPT_ANSWERS = timedelta(days=30)  # nobody repeats a write from longer ago
FAILURES = timedelta(days=1)
SESSIONS = timedelta(days=90)  # since last seen, or ended


def prune(engine: Engine) -> dict[str, int]:
    """Throw away what is older than its time, as the owner of the tables; gives how many rows of each."""
    with Session(engine) as session, session.begin():
        gone = {
            "kept_answer": session.exec(delete(KeptAnswer).where(col(KeptAnswer.at) < now() - KEPT_ANSWERS)),
            "sign_in_failure": session.exec(delete(SignInFailure).where(col(SignInFailure.at) < now() - FAILURES)),
            "sign_in": session.exec(
                delete(SignIn).where(or_(col(SignIn.seen_at) < now() - SESSIONS, col(SignIn.ended_at) < now() - SESSIONS))
            ),
        }
        return {table: result.rowcount for table, result in gone.items()}
