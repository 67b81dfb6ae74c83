"""Rounds: a checklist for this drive, answered item by item, resumed on any device; what is not OK becomes a finding."""

import uuid
from collections.abc import Sequence
from datetime import datetime
from typing import Literal

from flask import Response
from pydantic import BaseModel, Field
from sqlmodel import Session, select

from tuyere.core.stations.inspect.diagnosis.of_drive import family_of
from tuyere.core.stations.inspect.rounds.checklist import DEPTHS, TITLES, Depth, Item, compose, items, suggest
from tuyere.core.stations.inspect.rounds.of_drive import has_of, severe
from tuyere.record.entry import MOST_VERSIONS, Strict
from tuyere.store import drives
from tuyere.store import rounds as store
from tuyere.store.clock import now
from tuyere.store.dues import answer_by_look
from tuyere.store.findings import Cause, change
from tuyere.store.inspect_tables import Round, RoundAnswer
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Finding, Reading
from tuyere.store.write import Outcome, Writer, insert, update
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive, at_site_of_round
from tuyere.web.state import reading, site_day, write
from tuyere.web.surveyed import answer_on

blueprint = routes("rounds", "/api", "rounds", "Rounds with a checklist")


class RoundPath(BaseModel):
    """A round."""

    round_id: uuid.UUID


class RoundItemOut(BaseModel):
    """One thing to look at, and what was found: ok, not ok, cannot, measured (by a reading kept since the round began), or nothing yet."""

    key: str
    state: Literal["running", "stopped"]
    ask: str
    how: str
    measure: str
    weight: str
    look: str
    source: str
    found: Literal["", "ok", "not ok", "cannot", "measured"]
    words: str
    who: str
    finding_id: uuid.UUID | None
    row_version: int = Field(description="of the answer; 0 while there is none")


class RoundOut(BaseModel):
    """A round under way, or as it was finished: its items in order, and how many are done."""

    id: uuid.UUID
    depth: Depth
    title: str
    began_at: datetime
    finished_at: datetime | None
    row_version: int
    items: list[RoundItemOut]
    done: int
    not_ok: int


class DepthOut(BaseModel):
    """A round that may be begun: how many items, and when one so deep was last finished."""

    depth: Depth
    title: str
    items: int
    stopped: int
    last: datetime | None


class RoundsOut(BaseModel):
    """What is under way, what may be begun and which is due, and the rounds before."""

    under_way: RoundOut | None
    depths: list[DepthOut]
    suggested: Depth
    why: str
    before: list[RoundOut]


@blueprint.get("/drives/<uuid:drive_id>/rounds", summary="The rounds of a drive", responses={"200": RoundsOut})
@at_site_of_drive(Role.VIEWER)
def get_rounds(path: DrivePath) -> Response:
    with reading() as session:
        drive = session.get_one(Drive, path.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        on = answer_on(drive, configuration)
        finished = store.finished(session, drive.id)
        last: dict[Depth, datetime] = {}
        for row, _ in finished:
            if row.finished_at:
                last.setdefault(row.depth, row.finished_at)  # type: ignore[arg-type]
        told = suggest(last, severe(on.survey, configuration.hours_per_day if configuration else None), now())
        depths = []
        for depth in DEPTHS:
            asked = compose(family_of(on), has_of(on.survey), depth)
            stopped = sum(i.state == "stopped" for i in asked)
            depths.append(DepthOut(depth=depth, title=TITLES[depth], items=len(asked), stopped=stopped, last=last.get(depth)))
        under_way = store.open_round(session, drive.id)
        return answer(
            RoundsOut(
                under_way=_round_out(session, under_way) if under_way else None,
                depths=depths,
                suggested=told.depth,
                why=told.why,
                before=[_round_out(session, row) for row, _ in finished[:5]],
            )
        )


def _round_out(session: Session, row: Round) -> RoundOut:
    answered = store.answers(session, row.id)
    readings = store.measured_since(session, row.drive_id, row.began_at, row.finished_at)
    known = items()
    found = [_item_out(known[k], answered.get(k), readings) for k in row.items if k in known]
    return RoundOut(
        id=row.id,
        depth=row.depth,
        title=TITLES[row.depth],  # type: ignore[index]
        began_at=row.began_at,
        finished_at=row.finished_at,
        row_version=row.row_version,
        items=found,
        done=sum(bool(i.found) for i in found),
        not_ok=sum(i.found == "not ok" for i in found),
    )


def _item_out(item: Item, answered: tuple[RoundAnswer, str] | None, readings: Sequence[Reading]) -> RoundItemOut:
    said, who = answered or (None, "")
    measured = next((r for r in reversed(readings) if _answers(r, item.measure)), None)
    if said is None and measured is not None:
        found, words = "measured", measured.summary.get("headline", "")
    else:
        found, words = (said.found, said.words) if said else ("", "")
    return RoundItemOut(
        key=item.key,
        state=item.state,
        ask=item.ask,
        how=item.how,
        measure=item.measure,
        weight=item.weight.value,
        look=item.look,
        source=f"{item.source} ({item.confidence})",
        found=found,
        words=words,
        who=who,
        finding_id=said.finding_id if said and said.found == "not ok" else None,
        row_version=said.row_version if said else 0,
    )


KINDS = {"tension": "belt tension", "speed": "shaft speed", "align": "alignment", "inspect/wear": "wear"}


def _answers(row: Reading, measure: str) -> bool:
    """Whether a kept reading is what an item asks to be measured."""
    page, _, what = measure.partition("?what=")
    return bool(measure) and row.kind == KINDS[page] and (not what or row.summary.get("what") == what)


class BeginRound(Strict):
    """A client-made id, and how deep."""

    id: uuid.UUID
    depth: Depth = "usual"


class RoundKeptOut(BaseModel):
    """The round and its version; the dues that finishing it did."""

    id: uuid.UUID
    row_version: int
    dues_done: list[str] = Field(default_factory=list)


@blueprint.post("/drives/<uuid:drive_id>/rounds", summary="Begin a round", responses={"201": RoundKeptOut})
@at_site_of_drive(Role.MECHANIC)
def post_round(path: DrivePath, body: BeginRound) -> Response:
    def work(session: Session, writer: Writer) -> Outcome:
        drive = session.get_one(Drive, path.drive_id, with_for_update=True)
        if store.open_round(session, drive.id):
            raise Refusal(422, "A round is under way here: finish it, or go on with it.")
        configuration = drives.current_configuration(session, drive.id)
        on = answer_on(drive, configuration)
        asked = compose(family_of(on), has_of(on.survey), body.depth)
        row = Round(id=body.id, drive_id=drive.id, depth=body.depth, items=[i.key for i in asked], began_by=writer.person_id)
        insert(session, writer, row, "began a round")
        return Outcome(201, {"id": str(row.id), "row_version": 1})

    done = write(body.model_dump(mode="json"), work)
    return answer(RoundKeptOut(**done.body), done.status)


class FoundForm(Strict):
    """What was found at an item, over which version of the answer (0: the first). `words`: what is not OK, or why it cannot be."""

    item: str = Field(max_length=40)
    found: Literal["ok", "not ok", "cannot"]
    words: str = Field("", max_length=400)
    row_version: int = Field(0, ge=0, le=MOST_VERSIONS)


class ItemKeptOut(BaseModel):
    """The answer's version, and the finding it raised."""

    row_version: int
    finding_id: uuid.UUID | None


@blueprint.post("/rounds/<uuid:round_id>/items", summary="Say what was found at an item", responses={"200": ItemKeptOut})
@at_site_of_round(Role.MECHANIC)
def post_item(path: RoundPath, body: FoundForm) -> Response:
    words = " ".join(body.words.split())
    if body.found == "cannot" and not words:
        sentence = "Say why it cannot be looked at."
        raise Refusal(422, sentence, [FieldError(field="words", detail=sentence)])

    def work(session: Session, writer: Writer) -> Outcome:
        round_ = session.get_one(Round, path.round_id, with_for_update=True)
        if round_.finished_at:
            raise Refusal(422, "This round is finished: begin another, or say what you saw.")
        if body.item not in round_.items:
            sentence = "This round does not ask for that."
            raise Refusal(422, sentence, [FieldError(field="item", detail=sentence)])
        row = session.exec(select(RoundAnswer).where(RoundAnswer.round_id == round_.id, RoundAnswer.item == body.item)).first()
        if row is None:
            row = RoundAnswer(
                id=uuid.uuid5(round_.id, body.item), round_id=round_.id, item=body.item, found=body.found, words=words, by=writer.person_id
            )
            row.finding_id = raise_finding(session, writer, round_, row) if body.found == "not ok" else None
            insert(session, writer, row, "answered an item of a round")
        else:
            values = {"found": body.found, "words": words, "at": now(), "by": writer.person_id}
            update(session, writer, row, body.row_version, values, "answered an item of a round anew")
            _follow(session, writer, round_, row)
        return Outcome(200, {"row_version": row.row_version, "finding_id": str(row.finding_id) if row.finding_id else None})

    done = write(body.model_dump(mode="json"), work)
    return answer(ItemKeptOut(**done.body), done.status)


def raise_finding(session: Session, writer: Writer, round_: Round, row: RoundAnswer) -> uuid.UUID:
    """The finding of an item that is not OK, as old as the answer."""
    item = items()[row.item]
    finding = Finding(
        id=uuid.uuid5(row.id, "finding"),
        drive_id=round_.drive_id,
        what=f"Not OK: {item.ask.rstrip('?')}"[:120],
        weight=item.weight.value,
        found_by=writer.person_id,
        found_at=row.at,
        sign="round",
        words=row.words,
        page=item.measure or "inspect",
        machine_state=item.state,
    )
    insert(session, writer, finding, "raised a finding")
    return finding.id


def _follow(session: Session, writer: Writer, round_: Round, row: RoundAnswer) -> None:
    """An answer that was changed: its finding is raised, opened again with the new words, or closed."""
    finding = session.get(Finding, row.finding_id) if row.finding_id else None
    if row.found != "not ok":
        if finding and finding.closed_at is None:
            change(session, writer, finding, finding.row_version, "closed", "said", f"Answered anew on the round: {row.found}.")
        return
    if finding is None:
        row.finding_id = raise_finding(session, writer, round_, row)
        session.add(row)
        return
    if finding.closed_at is not None:
        change(session, writer, finding, finding.row_version, "open", "said", "")
    if finding.words != row.words:
        update(session, writer, finding, finding.row_version, {"words": row.words}, "said more of a finding")


def counted(done: int, of: int, not_ok: int) -> str:
    """How a round ended.

    >>> counted(11, 12, 1)
    '11 of 12 looked at, 1 not OK'
    """
    return f"{done} of {of} looked at, {not_ok} not OK"


class FinishRound(Strict):
    """Finish it over the version seen; `note` where items are left open."""

    row_version: int = Field(ge=1, le=MOST_VERSIONS)
    note: str = Field("", max_length=400)


@blueprint.post("/rounds/<uuid:round_id>/finish", summary="Finish a round", responses={"200": RoundKeptOut})
@at_site_of_round(Role.MECHANIC)
def post_finish(path: RoundPath, body: FinishRound) -> Response:
    note = " ".join(body.note.split())

    def work(session: Session, writer: Writer) -> Outcome:
        row = session.get_one(Round, path.round_id)
        if row.finished_at:
            raise Refusal(422, "This round is finished already.")
        told = _round_out(session, row)
        left = len(told.items) - told.done
        if left and not note:
            sentence = f"{left} of {len(told.items)} not looked at yet: look, or say why they are left."
            raise Refusal(422, sentence, [FieldError(field="note", detail=sentence)])
        at, counts = now(), counted(told.done, len(told.items), told.not_ok)
        values = {"finished_at": at, "finished_by": writer.person_id, "note": note, "said": counts}
        update(session, writer, row, body.row_version, values, "finished a round")
        drive = session.get_one(Drive, row.drive_id)
        configuration = drives.current_configuration(session, drive.id)
        cause = Cause(row.id, "job", f"Round finished {site_day(at):%d %b %Y}: {counts}", at)
        # A whole or usual round, all of it looked at, does the dues that ask for one.
        hours = configuration.hours_per_day if configuration else None
        dues = [] if left or row.depth == "quick" else answer_by_look(session, writer, drive, cause, "inspect/round", hours)
        return Outcome(200, {"id": str(row.id), "row_version": row.row_version, "dues_done": dues})

    done = write(body.model_dump(mode="json"), work)
    return answer(RoundKeptOut(**done.body), done.status)
