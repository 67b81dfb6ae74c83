"""POST /api/calc/link: link belting, cut to length and run the right way round."""

from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from tuyere.core.basis.field import Note
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.v_belt.link import read_link
from tuyere.core.kinds.v_belt.short_set import not_here
from tuyere.record.entry import Strict, part_of
from tuyere.record.fitted_forms import LinkForm
from tuyere.web.answers import BothOut, answer, both_out
from tuyere.web.routes import routes
from tuyere.web.rules import computes

blueprint = routes("link", "/api/calc", "link", "Link belting")


class LinkIn(Strict):
    """Link belting as measured and looked at."""

    link: LinkForm = Field(default_factory=LinkForm)
    machine_is: list[Annotated[str, Field(max_length=40)]] = Field(default_factory=list, max_length=60)


class LinkOut(BaseModel):
    """Links to cut, their length, what to say; `tabs` as seen, for the drawing."""

    links: int | None
    take_out: int | None
    length: BothOut | None
    pitch: BothOut | None
    tabs: str | None
    verdicts: list[Verdict]
    notes: dict[str, Note]
    problems: list[Problem]


@blueprint.post("/link", summary="Link belting cut to length", responses={"200": LinkOut})
@computes()
def calc_link(body: LinkIn) -> Response:
    part = part_of(body.link)
    reading = read_link(part.quantities, part.words)
    belt = reading.belt
    why = not_here(body.machine_is)
    stop = [Verdict("link", Tone.STOP, "Not in place of a belt on this machine", why)] if why else []
    return answer(
        LinkOut(
            links=belt.links if belt else None,
            take_out=belt.take_out if belt else None,
            length=both_out(belt.length_m, "length", decimals=(1, 0)) if belt else None,
            pitch=both_out(belt.pitch_m, "length", decimals=(3, 2)) if belt else None,
            tabs=reading.tabs,
            verdicts=[*stop, *reading.verdicts],
            notes=reading.notes,
            problems=list(reading.problems),
        )
    )
