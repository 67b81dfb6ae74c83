"""What is told of jobs: the models of their answers."""

import uuid
from datetime import date, datetime
from typing import Literal

from pydantic import BaseModel, Field

from tuyere.core.stations.jobs.library import SHOWN_S, Leaves, Sort
from tuyere.web.opened import FindingOut


class MachineAskOut(BaseModel):
    """What is asked of the machine, yes or no: the `guess` that is ticked and where it is from; `kept`: as it was answered before a job."""

    key: str
    question: str
    short: str
    guess: bool
    because: str
    kept: bool | None
    when: list[str]
    today: bool


class JobAskOut(BaseModel):
    """What is asked before a job begins: one of `options`, or a quantity as a person writes it."""

    key: str
    question: str
    options: list[str]
    field: str
    optional: bool
    when: list[str]
    notes: dict[str, str] = Field(default_factory=dict, description="what is to be said of an option on this drive")
    by: str = Field("", description="the answer that narrows the options")
    narrowed: dict[str, list[str]] = Field(default_factory=dict, description="the options that each of its answers leaves")


class JobKindOut(BaseModel):
    """A kind of job that this drive can have. `steps`: as it is composed by the guesses; about, until everything is answered."""

    key: str
    title: str
    about: str
    minutes: int
    steps: int
    stopped: bool
    asks: list[JobAskOut]


class JobBriefOut(BaseModel):
    """A job in a list: how far it is, and the step it stands at."""

    id: uuid.UUID
    kind: str
    title: str
    standing: Literal["waiting", "under way", "signed off", "dropped"]
    planned_at: datetime
    began_at: datetime | None
    finished_at: datetime | None
    who: str
    done: int
    of: int
    at_step: str
    due_what: str
    said: str


class JobsOut(BaseModel):
    """What may be done at a drive, what is waiting or under way, and what was signed off."""

    kinds: list[JobKindOut]
    machine: list[MachineAskOut]
    open: list[JobBriefOut]
    before: list[JobBriefOut]


class JobNumberOut(BaseModel):
    """The drive's own number at a step, in both systems, and the page that it is from."""

    label: str
    us: str
    si: str
    detail: str
    page: str
    source: str


class JobCautionOut(BaseModel):
    """Where the harm is."""

    id: str
    text: str
    source: str


class PlainStepOut(BaseModel):
    """A step as it is composed. `sort`: its place in the order of isolation; `leaves`: what it puts in, takes off or loosens; `undoes`: the
    steps whose work it takes back; `lasting`: its work stays; `turns`: it is turned by hand; `waits_for`: the steps that come first.
    """

    key: str
    do: str
    why: str
    source: str
    look: str
    sort: Sort
    state: Literal["isolated", "running", "any"]
    safety: str
    leaves: Leaves
    undoes: list[str]
    lasting: bool
    turns: bool
    waits_for: list[str]
    shown_s: float = Field(SHOWN_S, description="it cannot be done sooner after it is shown")
    read: str
    photo: bool
    own: bool


class JobPreviewOut(BaseModel):
    """A job as it would be composed, nothing stored. `lacking`: what is not answered yet: about so long until then. `text`: read aloud."""

    kind: str
    title: str
    minutes: int
    lacking: list[str]
    steps: list[PlainStepOut]
    text: str


class JobNoteOut(BaseModel):
    """A note of a job: with which step, who and when."""

    words: str
    do: str
    who: str
    at: datetime
    passed: bool


class RaisedOut(BaseModel):
    """A due that a sign-off raised. `key`: the id of a promise, or the rule that raises it; `due_on`: null while its day is not known."""

    key: str
    what: str
    due_on: date | None
    said: str
    page: str


class UnreadOut(BaseModel):
    """A step that asks for a reading and got none: not measured."""

    key: str
    do: str
    page: str


class JobStepOut(PlainStepOut):
    """A step of a job: its number, where its reading is taken, how it stands."""

    number: JobNumberOut | None
    lacks: str = Field(description="why there is no number, where one belongs")
    was_read: str = Field(description="what was read there since the job was made")
    not_measured: bool = Field(description="it asks for a reading, and none was kept since the drive was changed last")
    cautions: list[JobCautionOut]
    standing: Literal["", "done", "passed"]
    words: str
    who: str
    at: datetime | None
    row_version: int


class JobOut(BaseModel):
    """A job with every step. `next`: the step to do now; `lacking`: lock and guard steps that were not done."""

    id: uuid.UUID
    drive_id: uuid.UUID
    drive: str
    machine: str
    place: str
    kind: str
    title: str
    about: str
    standing: Literal["waiting", "under way", "signed off", "dropped"]
    planned_at: datetime
    planned_by: str
    began_at: datetime | None
    finished_at: datetime | None
    ended_by: str
    minutes: int | None = Field(description="from its first step to the sign-off")
    asked: dict[str, str]
    machine_is: dict[str, bool] = Field(description="what was answered of the machine")
    due_what: str
    steps: list[JobStepOut]
    next: str
    lacking: list[str]
    unread: list[UnreadOut] = Field(description="steps done that ask for a reading and got none")
    notes: list[JobNoteOut]
    earlier: list[JobNoteOut] = Field(description="notes of earlier jobs of this kind on this machine")
    raised: list[RaisedOut] = Field(description="dues that its sign-off raised")
    findings: list[FindingOut] = Field(description="open at the drive, which it may have put right")
    answers: list[uuid.UUID] = Field(description="those it is likely to have put right")
    event: str = Field(description="what it is on the record once signed off")
    note: str
    safety_note: str
    said: str
    deference: str
    own_version: int = Field(description="of the machine's own steps now: what a change of them is made over")
    row_version: int


class SiteJobOut(JobBriefOut):
    """An open job of a site, with whose drive it is at."""

    drive_id: uuid.UUID
    machine: str
    place: str


class SiteJobsOut(BaseModel):
    """Jobs of a site that are waiting or under way, those first that are begun; and how many there are in all."""

    jobs: list[SiteJobOut]
    many: int
