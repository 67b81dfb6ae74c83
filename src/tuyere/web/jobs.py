"""Jobs: composed for a drive, worked step by step on any device, signed off with what they closed and what they raise."""

import uuid

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session, select

from tuyere.core.stations.jobs.compose import fitting
from tuyere.core.stations.jobs.read import library
from tuyere.store import jobs as store
from tuyere.store.clock import now
from tuyere.store.job_tables import Job
from tuyere.store.people_tables import Person, Role
from tuyere.store.tables import Drive
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import Refusal
from tuyere.web.floor import SitePath
from tuyere.web.job_answers import about_job_drive, brief_out, job_out, kind_out, machine_out, preview_out
from tuyere.web.job_end import FinishJob, done_at, refused, sign_off
from tuyere.web.job_models import JobOut, JobPreviewOut, JobsOut, RaisedOut, SiteJobOut, SiteJobsOut, UnreadOut
from tuyere.web.job_work import (
    AddStep,
    BeginJob,
    DropJob,
    PreviewJob,
    SayStep,
    change_own_steps,
    keep_machine,
    make_job,
    refuse_unknown_traits,
    say_step,
)
from tuyere.web.readings import ask_of_meter, hour_meter
from tuyere.web.routes import routes
from tuyere.web.rules import at_site, at_site_of_drive, at_site_of_job
from tuyere.web.state import reading, write

MOST_LISTED = 30
blueprint = routes("jobs", "/api", "jobs", "Jobs, from lock-out to run-in")


class JobPath(BaseModel):
    """A job."""

    job_id: uuid.UUID


class JobKeptOut(BaseModel):
    """A job, its version, and what comes next; of a sign-off what was not measured, and the dues that it raised."""

    id: uuid.UUID
    row_version: int
    said: str = ""
    unread: list[UnreadOut] = Field(default_factory=list)
    raised: list[RaisedOut] = Field(default_factory=list)


@blueprint.get("/drives/<uuid:drive_id>/jobs", summary="The jobs of a drive", responses={"200": JobsOut})
@at_site_of_drive(Role.VIEWER)
def get_jobs(path: DrivePath) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        told = about_job_drive(session, drive, {})
        kinds = fitting(library(), told.facts)
        return answer(
            JobsOut(
                kinds=[kind_out(k, told) for k in kinds],
                machine=machine_out(told),
                open=[brief_out(session, j) for j in store.open_at_drive(session, drive.id)],
                before=[brief_out(session, j, who) for j, who in store.ended(session, drive.id)],
            )
        )


@blueprint.get("/sites/<uuid:site_id>/jobs", summary="Jobs waiting and under way", responses={"200": SiteJobsOut})
@at_site(Role.VIEWER)
def get_site_jobs(path: SitePath) -> Response:
    with reading() as session:
        listed, many = store.open_at_site(session, path.site_id, MOST_LISTED)
        said, names = store.steps_of_many(session, [j.id for j, *_ in listed]), dict(session.exec(select(Person.id, Person.name)).all())
        jobs = [
            SiteJobOut(
                **brief_out(session, j, names[j.planned_by], said[j.id]).model_dump(), drive_id=drive_id, machine=machine, place=place
            )
            for j, drive_id, machine, place in listed
        ]
        return answer(SiteJobsOut(jobs=jobs, many=many))


@blueprint.post("/drives/<uuid:drive_id>/jobs", summary="Make a job of a drive", responses={"201": JobKeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_job(path: DrivePath, body: BeginJob) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        row = make_job(session, drive, body, writer.person_id, now())
        keep_machine(session, writer, drive, body.machine)
        insert(session, writer, row, "made a job")
        return Outcome(201, {"id": str(row.id), "row_version": 1})

    done = write(body.model_dump(mode="json"), work)
    return answer(JobKeptOut(**done.body), done.status)


@blueprint.post(
    "/drives/<uuid:drive_id>/jobs/preview", summary="A job as it would be composed, nothing stored", responses={"200": JobPreviewOut}
)
@at_site_of_drive(Role.VIEWER)
def post_preview(path: DrivePath, body: PreviewJob) -> Response:
    kind = library().kinds.get(body.kind)
    if kind is None:
        raise refused("kind", "There is no such kind of job.")
    refuse_unknown_traits(body.machine)
    with reading() as session:
        return answer(preview_out(session, session.get_one(Drive, path.drive_id), kind, body.asked, body.machine))


@blueprint.get("/jobs/<uuid:job_id>", summary="A job with its steps", responses={"200": JobOut})
@at_site_of_job(Role.VIEWER)
def get_job(path: JobPath) -> Response:
    with reading() as session:
        return answer(job_out(session, session.get_one(Job, path.job_id)))


@blueprint.post("/jobs/<uuid:job_id>/steps", summary="Do a step of a job, pass it over, or take it back", responses={"200": JobKeptOut})
@at_site_of_job(Role.MECHANIC)
def post_step(path: JobPath, body: SayStep) -> Response:
    words = " ".join(body.words.split())

    def work(session: Session, writer: Writer) -> Outcome:
        job = session.get_one(Job, path.job_id, with_for_update=True)
        said = say_step(session, writer, job, body.step, body.standing, words, done_at(job, body.at), body.row_version, body.later)
        return Outcome(200, {"id": str(job.id), "row_version": said})

    done = write(body.model_dump(mode="json"), work)
    return answer(JobKeptOut(**done.body), done.status)


@blueprint.post("/jobs/<uuid:job_id>/own-steps", summary="Add a step on this machine, or take one out", responses={"201": JobKeptOut})
@at_site_of_job(Role.MECHANIC)
def post_own_step(path: JobPath, body: AddStep) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        job = session.get_one(Job, path.job_id, with_for_update=True)
        change_own_steps(session, writer, job, body)
        return Outcome(201, {"id": str(job.id), "row_version": job.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(JobKeptOut(**done.body), done.status)


@blueprint.post("/jobs/<uuid:job_id>/finish", summary="Sign a job off", responses={"200": JobKeptOut})
@at_site_of_job(Role.MECHANIC)
def post_sign_off(path: JobPath, body: FinishJob) -> Response:
    hours = hour_meter(body.hour_meter)

    def work(session: Session, writer: Writer) -> Outcome:
        job = session.get_one(Job, path.job_id, with_for_update=True)
        ask_of_meter(session, job.drive_id, body.hour_meter, hours, now())
        said = sign_off(session, writer, job, body, hours, now())
        return Outcome(200, {"id": str(job.id), "row_version": job.row_version, "said": said, "unread": job.unread, "raised": job.raised})

    done = write(body.model_dump(mode="json"), work)
    return answer(JobKeptOut(**done.body), done.status)


@blueprint.post("/jobs/<uuid:job_id>/drop", summary="Drop a job", responses={"200": JobKeptOut})
@at_site_of_job(Role.MECHANIC)
def post_drop(path: JobPath, body: DropJob) -> Response:
    why = " ".join(body.why.split())
    if not why:
        raise refused("why", "Say why it is dropped.")

    def work(session: Session, writer: Writer) -> Outcome:
        job = session.get_one(Job, path.job_id, with_for_update=True)
        if job.finished_at or job.dropped_at:
            raise Refusal(422, "This job is ended already.")
        update(session, writer, job, body.row_version, {"dropped_at": now(), "ended_by": writer.person_id, "note": why}, "dropped a job")
        return Outcome(200, {"id": str(job.id), "row_version": job.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(JobKeptOut(**done.body), done.status)
