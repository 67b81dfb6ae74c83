"""The paper that lives on a machine, and a job on paper."""

from flask import Response, request
from pydantic import Field
from sqlmodel import Session

from tuyere.core.basis.figure import Figure
from tuyere.core.basis.number import Number, range_of
from tuyere.core.drive.answer import answer
from tuyere.core.stations.tension.station import tension_of
from tuyere.core.stations.tension.typed import TypedTension
from tuyere.documents.drive_card import Card, CardRow, Size, card_pdf, card_svg, job_sheet_pdf
from tuyere.record.entry import Strict
from tuyere.store import drives
from tuyere.store.clock import now
from tuyere.store.job_tables import Job
from tuyere.store.people_tables import Role
from tuyere.store.tables import Drive, Machine
from tuyere.web.drives import DrivePath
from tuyere.web.job_about import About, about
from tuyere.web.job_answers import job_out
from tuyere.web.jobs import JobPath
from tuyere.web.routes import routes
from tuyere.web.rules import at_site_of_drive, at_site_of_job
from tuyere.web.shop import the_shop
from tuyere.web.state import reading, site_day

blueprint = routes("cards", "/api", "cards", "Drive cards, guard labels and job sheets")


class CardQuery(Strict):
    """How large, and in which units first."""

    size: Size = Field("A6", description="label: for a guard")
    system: str = Field("us", pattern="^(us|si)$")


@blueprint.get("/drives/<uuid:drive_id>/card.svg", summary="The drive card, or a guard label, as SVG")
@at_site_of_drive(Role.VIEWER)
def get_card_svg(path: DrivePath, query: CardQuery) -> Response:
    with reading() as session:
        drawn = card_svg(_card(session, session.get_one(Drive, path.drive_id), query.system), query.size)
    return Response(drawn, content_type="image/svg+xml", headers={"Content-Disposition": 'inline; filename="drive-card.svg"'})


@blueprint.get("/drives/<uuid:drive_id>/card.pdf", summary="The drive card, or a guard label, as PDF")
@at_site_of_drive(Role.VIEWER)
def get_card_pdf(path: DrivePath, query: CardQuery) -> Response:
    with reading() as session:
        card = _card(session, session.get_one(Drive, path.drive_id), query.system)
    return Response(
        card_pdf(card, query.size), content_type="application/pdf", headers={"Content-Disposition": 'inline; filename="drive-card.pdf"'}
    )


@blueprint.get("/jobs/<uuid:job_id>/sheet.pdf", summary="A job on paper")
@at_site_of_job(Role.VIEWER)
def get_job_sheet(path: JobPath) -> Response:
    with reading() as session:
        told = job_out(session, session.get_one(Job, path.job_id)).model_dump()
    pdf = job_sheet_pdf(told, f"{request.host_url}jobs/{path.job_id}")
    return Response(pdf, content_type="application/pdf", headers={"Content-Disposition": 'inline; filename="job-sheet.pdf"'})


def _card(session: Session, drive: Drive, system: str) -> Card:
    machine = session.get_one(Machine, drive.machine_id)
    told = about(session, drive, drives.current_configuration(session, drive.id), {})
    turning = told.survey.driver.rotation if told.belts else ""
    return Card(
        machine=machine.name,
        drive=f"{drive.name}{f', {machine.place}' if machine.place else ''}",
        rows=_rows(told, system),
        turns=turning if turning in ("clockwise", "counter-clockwise") else "",
        link=f"{request.host_url}drives/{drive.id}",
        made=f"As the record stood on {site_day(now()):%d %b %Y}. The machine's manual comes first.",
    )


def _rows(told: About, system: str) -> tuple[CardRow, ...]:
    """The numbers in the order in which they are wanted at the machine."""
    found = [CardRow("Ask for", told.belts)] if told.belts else []
    if number := told.numbers.get("chain_limit"):
        found.append(_row(f"Worn out: {number.label}", number, system))
    if "carriage_target" not in told.numbers:
        found += _strand(told, system)
    if number := told.numbers.get("carriage_target"):
        found.append(_row("Carriage at its far end: hum", number, system))
    if number := told.numbers.get("dog_pitch"):
        found.append(_row("Dog pitch, new", number, system))
    if number := told.numbers.get("driven_speed"):
        found.append(_row("Driven speed", number, system))
    return tuple(found)


def _row(label: str, number: Number, system: str) -> CardRow:
    first, other = (number.si, number.us) if system == "si" else (number.us, number.si)
    more = f"{other}; " if other != first else ""
    return CardRow(label, first, f"{more}{number.detail}".removesuffix("; "))


def _strand(told: About, system: str) -> list[CardRow]:
    """What the usual tool shows, run in and new, per what, and the note a plucked span gives: as the Tension station has them."""
    on = answer(told.survey, own=the_shop().ratings)
    run_in, new, note = (tension_of(on, 1, how) for how in (TypedTension(), TypedTension(fresh=True), TypedTension("note")))
    if run_in is None or new is None or "aim_low" not in run_in.figures or "aim_low" not in new.figures:
        return []
    found = []
    if run_in.method.key == "gauge":
        span = _both(run_in.figures["span"], system)[0] if "span" in run_in.figures else ""
        deflection, other = _both(run_in.figures["deflection"], system)
        many = run_in.count > 1 and run_in.pushes.startswith("one ")
        found.append(
            CardRow(f"Push {run_in.pushes}{', each of the set' if many else ''}, at mid-span by", deflection, f"{other}; span {span}")
        )
        what = f"force on {run_in.pushes.split(',')[0]}"
    else:
        what = run_in.figures["aim_low"].label.removesuffix(", from")
    alike = all(run_in.figures[k].us == new.figures[k].us for k in ("aim_low", "aim_high"))
    for state, tight in (("Run in and new", run_in),) if alike else (("Run in", run_in), ("New", new)):
        (low, low_other), (high, high_other) = (_both(tight.figures[k], system) for k in ("aim_low", "aim_high"))
        found.append(CardRow(f"{state}: {what}", range_of(low, high), range_of(low_other, high_other)))
    if note and note.method.key == "note" and "aim_low" in note.figures:
        found.append(CardRow("Run in: note of the span", range_of(note.figures["aim_low"].us, note.figures["aim_high"].us)))
    return found


def _both(figure: Figure, system: str) -> tuple[str, str]:
    return (figure.si, figure.us) if system == "si" else (figure.us, figure.si)
