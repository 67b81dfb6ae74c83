"""What is said of a due: done, moved, not needed; and the rules by which a site's dues are raised."""

import uuid
from datetime import date, timedelta
from typing import Any, Literal
from zoneinfo import available_timezones

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.stations.inspect.dues.rules import UpkeepRule, standard_rules
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import dues as store
from tuyere.store.clock import now
from tuyere.store.dues_tables import EVENTS, DueAnswer
from tuyere.store.people_tables import Role, Site
from tuyere.store.tables import Drive, Due, Machine
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.floor import SitePath
from tuyere.web.routes import routes
from tuyere.web.rules import at_site, at_site_of_drive, at_site_of_due
from tuyere.web.state import reading, site_day, write

blueprint = routes("due answers", "/api", "due answers", "Dues: done, moved, not needed; and their rules")
LATEST_DAYS = 3 * 365


class DuePath(BaseModel):
    """A promise for a day."""

    due_id: uuid.UUID


class SayOfDue(Strict):
    """Done, moved to another day (which wants a day and a reason), not needed (which wants a reason), or the last word taken back."""

    answer: Literal["done", "moved", "not needed", "taken back"]
    to_on: date | None = None
    why: str = Field("", max_length=400)

    def checked(self) -> str:
        """The reason. Raises Refusal."""
        why = " ".join(self.why.split())
        if self.answer in ("moved", "not needed") and not why:
            sentence = "Say why: who reads it next should know."
            raise Refusal(422, sentence, [FieldError(field="why", detail=sentence)])
        if self.answer == "moved":
            today = site_day(now())
            if self.to_on is None or not today - timedelta(days=1) <= self.to_on <= today + timedelta(days=LATEST_DAYS):
                sentence = "Choose a day from today to three years ahead."
                raise Refusal(422, sentence, [FieldError(field="to_on", detail=sentence)])
        return why


class AnswerRule(SayOfDue):
    """What is said of a due that a rule raised at a drive, by the rule's key."""

    id: uuid.UUID
    rule: str = Field(min_length=1, max_length=60)


class AnsweredOut(BaseModel):
    """What was kept; of a promise its new row version."""

    id: uuid.UUID
    row_version: int = 0


@blueprint.post("/drives/<uuid:drive_id>/due-answers", summary="Answer a due that a rule raised", responses={"201": AnsweredOut})
@at_site_of_drive(Role.MECHANIC)
def post_answer(path: DrivePath, body: AnswerRule) -> Response:
    why = body.checked()

    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id)
        place = store.place_of(session, session.get_one(Machine, drive.machine_id).site_id)
        if body.rule not in {r.key for r in place.rules} | {"oil"}:
            sentence = "That rule is not used here any more."
            raise Refusal(422, sentence, [FieldError(field="rule", detail=sentence)])
        to_on = body.to_on if body.answer == "moved" else None
        row = DueAnswer(id=body.id, drive_id=drive.id, rule=body.rule, answer=body.answer, to_on=to_on, why=why, made_by=writer.person_id)
        insert(session, writer, row, _ACTIONS[body.answer])
        return Outcome(201, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(AnsweredOut(**done.body), done.status)


_ACTIONS = {"done": "did a due", "moved": "moved a due", "not needed": "found a due not needed", "taken back": "took an answer back"}


class AnswerPromise(SayOfDue):
    """What is said of a promise for a day."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)


@blueprint.post("/dues/<uuid:due_id>", summary="Answer a promise for a day", responses={"200": AnsweredOut})
@at_site_of_due(Role.MECHANIC)
def post_promise(path: DuePath, body: AnswerPromise) -> Response:
    why = body.checked()

    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Due, path.due_id)
        back = body.answer == "taken back"
        values: dict[str, Any] = {"why": why, "answer": "" if back else body.answer, "done_by": None if back else writer.person_id}
        values |= {"due_on": body.to_on} if body.answer == "moved" else {"done_at": None if back else now()}
        update(session, writer, row, body.row_version, values, _ACTIONS[body.answer])
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version})

    done = write(body.model_dump(mode="json"), work)
    return answer(AnsweredOut(**done.body), done.status)


class PromiseForm(Strict):
    """A promise to look at a drive again on a day."""

    id: uuid.UUID
    what: str = Field(min_length=1, max_length=120)
    due_on: date


@blueprint.post("/drives/<uuid:drive_id>/dues", summary="Promise to look again on a day", responses={"201": AnsweredOut})
@at_site_of_drive(Role.MECHANIC)
def post_due(path: DrivePath, body: PromiseForm) -> Response:
    what = " ".join(body.what.split())
    today = site_day(now())
    if not what or not today - timedelta(days=1) <= body.due_on <= today + timedelta(days=LATEST_DAYS):
        field, sentence = ("due_on", "Choose a day from today to three years ahead.") if what else ("what", "Say what to look at.")
        raise Refusal(422, sentence, [FieldError(field=field, detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        row = Due(id=body.id, drive_id=path.drive_id, what=what, due_on=body.due_on)
        insert(session, writer, row, "raised a due")
        return Outcome(201, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(AnsweredOut(**done.body), done.status)


class RuleOut(BaseModel):
    """A rule as it holds at a site; `own`: changed or made here, and then with its version. `standard`: what it says without that."""

    key: str
    event: str
    what: str
    interval: str
    after_hours: float | None
    after_days: float | None
    after_months: int | None
    repeats: bool
    kinds: list[str]
    page: str
    used: bool
    own: bool
    row_version: int
    source: str


class RulesOut(BaseModel):
    """Every rule of a site, whose days count there, the events that start a count, and the zones there are."""

    rules: list[RuleOut]
    zone: str
    site_version: int
    events: list[str]
    zones: list[str]


@blueprint.get("/sites/<uuid:site_id>/due-rules", summary="By which rules things fall due", responses={"200": RulesOut})
@at_site(Role.VIEWER)
def get_rules(path: SitePath) -> Response:
    with reading() as session:
        site = session.get_one(Site, path.site_id)
        own = {r.key: r for r in store.own_rules(session, path.site_id)}
        listed = [_rule(own.get(r.key), r) for r in standard_rules()]
        listed += [_rule(row, store.rule_of(row)) for key, row in own.items() if key not in {r.key for r in standard_rules()}]
        zones = sorted(z for z in available_timezones() if "/" in z or z == "UTC")
        return answer(RulesOut(rules=listed, zone=site.zone, site_version=site.row_version, events=list(EVENTS), zones=zones))


def _rule(row: Any, standard: UpkeepRule) -> RuleOut:
    rule = store.rule_of(row) if row else standard
    return RuleOut(
        key=rule.key,
        event=rule.event,
        what=rule.what,
        interval=rule.interval,
        after_hours=rule.after_hours,
        after_days=rule.after_days,
        after_months=rule.after_months,
        repeats=rule.repeats,
        kinds=list(rule.kinds),
        page=rule.page,
        used=row.used if row else True,
        own=row is not None,
        row_version=row.row_version if row else 0,
        source=rule.source,
    )


class RuleForm(Strict):
    """A rule as this site has it. `row_version` 0: it had none of its own by that key yet."""

    id: uuid.UUID
    row_version: int = Field(ge=0, le=MOST_VERSIONS)
    key: str = Field(min_length=1, max_length=60)
    event: Literal["new set", "new wheel", "re-tension", "first start", "oil change", "get-home fix", "get-home off"]
    what: str = Field(min_length=1, max_length=120)
    after_hours: float | None = Field(None, gt=0, le=200_000)
    after_days: float | None = Field(None, ge=0, le=20_000)
    after_months: int | None = Field(None, ge=1, le=240)
    repeats: bool = False
    kinds: list[str] = Field(default_factory=list, max_length=20)
    page: Literal["survey", "speed", "size", "tension", "align", "inspect/round"] = "tension"
    used: bool = True


@blueprint.post("/sites/<uuid:site_id>/due-rules", summary="Change a rule, or make one", responses={"200": AnsweredOut})
@at_site(Role.LEAD)
def post_rule(path: SitePath, body: RuleForm) -> Response:
    if body.after_hours is None and body.after_days is None and body.after_months is None:
        sentence = "Say after how many running hours, days or months."
        raise Refusal(422, sentence, [FieldError(field="after_hours", detail=sentence)])
    values = body.model_dump(exclude={"id", "row_version", "key", "kinds"}) | {"kinds": ";".join(body.kinds), "what": body.what.strip()}

    def work(session: Session, writer: Writer) -> Outcome:
        row = store.settle_rule(session, writer, body.id, body.row_version, body.key.strip(), values)
        return Outcome(200, {"id": str(row.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(AnsweredOut(**done.body), done.status)


class ZoneForm(Strict):
    """Whose days count at a site."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    zone: str = Field(max_length=60)


@blueprint.post("/sites/<uuid:site_id>/zone", summary="Choose the time zone of a site", responses={"200": AnsweredOut})
@at_site(Role.LEAD)
def post_zone(path: SitePath, body: ZoneForm) -> Response:
    if body.zone not in available_timezones():
        sentence = "Choose a zone of the list, such as Europe/Berlin."
        raise Refusal(422, sentence, [FieldError(field="zone", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        site = session.get_one(Site, path.site_id)
        update(session, writer, site, body.row_version, {"zone": body.zone}, "chose the time zone")
        return Outcome(200, {"id": str(site.id)})

    done = write(body.model_dump(mode="json"), work)
    return answer(AnsweredOut(**done.body), done.status)
