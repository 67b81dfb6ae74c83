"""The demo plant's jobs: waiting, under way, signed off."""

import uuid
from datetime import timedelta
from typing import Any

from sqlmodel import Session

from tuyere.core.stations.jobs.compose import next_step
from tuyere.store.clock import now
from tuyere.store.tables import Drive
from tuyere.store.write import Writer, insert
from tuyere.web.job_answers import steps_of
from tuyere.web.job_end import FinishJob, sign_off
from tuyere.web.job_work import BeginJob, make_job, say_step

MINUTES = 4  # between two steps of the story


def load_jobs(session: Session, writer: Writer, drive: Drive, stories: list[dict[str, Any]]) -> None:
    """Each story: `days` ago, `kind`, `asked`; `done`: how many steps, or "all", which signs it off with a `note`."""
    for story in stories:
        at = (now() - timedelta(days=story["days"])).replace(hour=7, minute=30)
        body = BeginJob(id=uuid.uuid4(), kind=story["kind"], asked=story.get("asked", {}), due=story.get("due", ""))
        job = make_job(session, drive, body, writer.person_id, at)
        insert(session, writer, job, "made a job")
        steps, settled = steps_of(session, job), set[str]()
        most = len(steps) if story.get("done") == "all" else story.get("done", 0)
        while len(settled) < most and (step := next_step(steps, settled)):
            at += timedelta(minutes=MINUTES)
            say_step(session, writer, job, step.key, "done", "", at)
            settled.add(step.key)
        if story.get("done") == "all":
            sign_off(session, writer, job, FinishJob(row_version=job.row_version, note=story.get("note", "")), None, at)
