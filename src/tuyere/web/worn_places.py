"""Where wear is measured on a drive: every wheel on the path, every groove; and the whole set that a worn wheel calls for."""

from collections.abc import Sequence
from datetime import datetime

from pydantic import BaseModel

from tuyere.store.tables import Reading
from tuyere.web.forms import FittedForm, FlatForm, SheavesForm, SurveyForm, ToothedForm
from tuyere.web.machine_is import has_idler

GROOVED = ("groove", "groove_bottom", "ride_low")  # groove by groove
WHEELS = (*GROOVED, "nick", "pulley_tooth", "sprocket_tooth", "run_out_rim", "crown", "bushing")
BELTS = ("belt_cracks", "belt_glaze", "cords")
RUINS_THE_NEXT = ("groove", "groove_bottom", "nick", "pulley_tooth", "sprocket_tooth")  # a new belt on such a wheel dies as fast
NOUN = {"v": "sheave", "ribbed": "sheave", "chain": "sprocket", "conveyor": "sprocket"}
MOST = 24


class WornPlaceOut(BaseModel):
    """A place to measure, and the last reading there since the part went on: share of the limit, words, when; null where there is none."""

    where: str
    share: float | None
    text: str
    at: datetime | None


def places_of(what: str, survey: SurveyForm, family: str) -> list[str]:
    """Where it is measured, in the order of the belt's path; empty where the drive does not say."""
    layout = survey.layout
    if what == "keeper":
        return [k.name or f"keeper {i}" for i, k in enumerate(layout.keepers, 1)]
    if what == "idler":
        named = [w.name or f"wheel {i}" for i, w in enumerate(layout.wheels, 1) if w.role == "idler"]
        return named or (["idler"] if has_idler(survey) else [])
    belts = _count(survey.first.fitted)
    if what in BELTS:
        return [f"belt {i}" for i in range(1, belts + 1)] if belts > 1 else []
    if what not in WHEELS:
        return []
    noun = NOUN.get(family, "pulley")
    grooved = what in GROOVED
    wheels = [w.name or f"wheel {i}" for i, w in enumerate(layout.wheels, 1) if not grooved or (w.face, w.contact) == ("grooved", "inside")]
    named = wheels or [f"driver {noun}", f"driven {noun}"]
    return [f"{w}, groove {g}" for w in named for g in range(1, belts + 1)][:MOST] if grooved and belts > 1 else named[:MOST]


def _count(fitted: FittedForm | SheavesForm | ToothedForm | FlatForm) -> int:
    said = fitted.choices.belt_count.strip() if isinstance(fitted, SheavesForm) else ""
    return int(said) if said.isdigit() and 1 <= int(said) <= MOST else 1


def places_out(where: Sequence[str], rows: Sequence[Reading], since: datetime | None) -> list[WornPlaceOut]:
    """Each place with its last reading since the part went on; places that were measured and are not on the list come last."""
    last = {r.summary["where"]: r for r in rows if since is None or r.taken_at > since}
    names = [*where, *(w for w in last if w and w not in where)]
    return [
        WornPlaceOut(where=w, share=last[w].summary["share"], text=last[w].summary["text"], at=last[w].taken_at)
        if w in last
        else WornPlaceOut(where=w, share=None, text="", at=None)
        for w in names
    ]


def whole_set(what: str, survey: SurveyForm, family: str, places: Sequence[WornPlaceOut]) -> list[str]:
    """What a wheel at its limit calls for: every wheel on the path and what runs on them; empty while none is at its limit."""
    if what not in RUINS_THE_NEXT or not any(p.share is not None and p.share >= 1 for p in places):
        return []
    stage, layout = survey.first, survey.layout
    noun = NOUN.get(family, "pulley")
    if layout.wheels:
        wheels = [_sized(w.name or f"wheel {i}", w.diameter.text, w.diameter.unit) for i, w in enumerate(layout.wheels, 1)]
    elif isinstance(stage.fitted, SheavesForm):
        q = stage.fitted.quantities
        sizes = ((f"driver {noun}", q.driver_diameter), (f"driven {noun}", q.driven_diameter))
        wheels = [_sized(name, e.text, e.unit) for name, e in sizes]
    elif isinstance(stage.fitted, ToothedForm):
        drive = stage.fitted.drive
        wheels = [_sized(name, teeth, "teeth") for name, teeth in ((f"driver {noun}", drive.teeth_1), (f"driven {noun}", drive.teeth_2))]
    else:
        wheels = [f"driver {noun}", f"driven {noun}"]
    return [*wheels, *_runs(stage.fitted)]


def _sized(name: str, size: str, unit: str) -> str:
    return f"{name}, {size} {unit}".strip() if size.strip() else name


def _runs(fitted: FittedForm | SheavesForm | ToothedForm | FlatForm) -> list[str]:
    if isinstance(fitted, SheavesForm):
        belt = fitted.choices.belt or (f"{fitted.choices.section} belts" if fitted.choices.section else "the belts")
        count = _count(fitted)
        return [f"{count} x {belt}, one matched set" if count > 1 else belt]
    if isinstance(fitted, ToothedForm):
        return [fitted.words.label or fitted.drive.name or "belt or chain"]
    return ["the belt"]
