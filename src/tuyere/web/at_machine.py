"""At the machine: trials kept with a drive, and simulated instruments pointed at it."""

import random
import uuid
from typing import Literal

from flask import Response, current_app
from pydantic import BaseModel, Field
from sqlmodel import Session

from tuyere.core.kinds import registry
from tuyere.core.stations.speed.trial import CHANGES
from tuyere.instruments.device import DEVICES, Shown, Target, Truth, strobe
from tuyere.record.entry import Strict
from tuyere.store import drives
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Trial
from tuyere.store.write import Outcome, Writer, insert
from tuyere.web.answers import answer
from tuyere.web.drives import DrivePath
from tuyere.web.errors import FieldError, Refusal
from tuyere.web.machines import TrialForm
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive
from tuyere.web.state import reading, write
from tuyere.web.surveyed import answer_on

blueprint = routes("at the machine", "/api", "at the machine", "Trials, simulated instruments")


class KeepTrial(Strict):
    """A trial to keep: client-made id, both columns as typed, and a note."""

    id: uuid.UUID
    trial: TrialForm
    note: str = Field("", max_length=2000)


class KeptTrialOut(BaseModel):
    """The trial kept."""

    id: uuid.UUID
    headline: str


@blueprint.post("/drives/<uuid:drive_id>/trials", summary="Keep a trial", responses={"201": KeptTrialOut})
@at_site_of_drive(Role.MECHANIC)
def post_trial(path: DrivePath, body: KeepTrial) -> Response:
    found = body.trial.read()
    if found.problems:
        raise Refusal(422, found.problems[0].sentence, [FieldError(field=p.field, detail=p.sentence) for p in found.problems])
    pairs = [r for r in found.rows if r.before and r.after]
    change = body.trial.words.get("change", "")
    if change not in CHANGES:
        raise Refusal(422, "Say what was changed.", [FieldError(field="change", detail="Say what was changed: one thing at a time.")])
    if not pairs and not body.trial.words.get("after_leak"):
        sentence = "Read at least one thing both before and after."
        raise Refusal(422, sentence, [FieldError(field="after_tach_driven", detail=sentence)])
    first = found.verdicts[0]
    summary = {"change": CHANGES[change], "headline": first.headline, "detail": first.detail, "tone": first.tone.value}

    def work(session: Session, writer: Writer) -> Outcome:
        row = Trial(
            id=body.id,
            drive_id=path.drive_id,
            change=change,
            note=body.note.strip(),
            made_by=writer.person_id,
            typed=body.trial.model_dump(mode="json"),
            values_si=found.values,
            summary=summary,
        )
        insert(session, writer, row, "kept a trial")
        return Outcome(201, {"id": str(row.id), "headline": first.headline})

    done = write(body.model_dump(mode="json"), work)
    return answer(KeptTrialOut(**done.body), done.status)


class PointIn(Strict):
    """A simulated instrument and what it is pointed at; a strobe wants its flashes a minute."""

    device: Literal["tachometer", "clamp meter", "manometer", "strobe"]
    target: Target
    flashes_per_minute: float | None = Field(None, gt=1, le=100000)


class ShownOut(BaseModel):
    """What the display shows."""

    text: str
    unit: str
    word: str
    simulated: bool = True


@blueprint.post("/drives/<uuid:drive_id>/instruments", summary="Point a simulated instrument at the machine", responses={"200": ShownOut})
@at_site_of_drive(Role.VIEWER)
def post_instrument(path: DrivePath, body: PointIn) -> Response:
    if not current_app.config["DEMO"]:
        raise Refusal(404)
    with reading() as session:
        truth = truth_of(session, session.get_one(Drive, path.drive_id))
    value = truth.at(body.target)
    if value is None:
        raise Refusal(422, "There is nothing to read there: survey the drive, and give its design point, first.")
    shown: Shown
    if body.device == "strobe":
        shown = strobe(value, body.flashes_per_minute or 0.0) if body.flashes_per_minute else Shown("", "rpm", "Set the flashes a minute.")
    else:
        device = DEVICES[body.device]
        if body.target not in device.targets:
            raise Refusal(422, f"A {body.device} reads the {' or the '.join(device.targets)}.")
        shown = device.read(value, random.SystemRandom())
    return answer(ShownOut(text=shown.text, unit=shown.unit, word=shown.word))


def truth_of(session: Session, drive: Drive) -> Truth:
    """What a demo machine is doing: its plate, a little light load, and the slip that was read of it last."""
    configuration = drives.current_configuration(session, drive.id)
    on = answer_on(drive, configuration)
    plate, turns = on.spec.driver_speed, on.figures.get("driven_speed")
    if plate is None or turns is None:
        return Truth(plate.value if plate else None)
    slip = drives.last_slip(session, drive.id)
    driver = plate.value * 1.004
    usual = 0.0 if registry.family(drive.family).toothed else 0.012
    driven = turns.value_si * 1.004 * (1 - (slip if slip is not None else usual))
    share = driven / drive.design_speed_rad_per_s if drive.design_speed_rad_per_s else 1.0
    amps = drive.design_amps_a * (0.4 + 0.47 * share**3) if drive.design_amps_a else None
    pressure = drive.design_pressure_pa * share**2 if drive.design_pressure_pa else None
    return Truth(driver, driven, amps, pressure)
