"""Where wear is measured on a drive: every wheel on the path, every groove; and the whole set that a worn wheel calls for."""

from tuyere.core.drive.facts import group_of, has_idler
from tuyere.core.drive.survey import Survey

GROOVED = ("groove", "groove_bottom", "ride_low")  # groove by groove
WHEELS = (*GROOVED, "nick", "pulley_tooth", "sprocket_tooth", "run_out_rim", "crown", "bushing")
BELTS = ("belt_cracks", "belt_glaze", "cords")
RUINS_THE_NEXT = ("groove", "groove_bottom", "nick", "pulley_tooth", "sprocket_tooth")  # a new belt on such a wheel dies as fast
NOUN = {"v": "sheave", "ribbed": "sheave", "chain": "sprocket", "conveyor": "sprocket"}
MOST = 24


def places_of(what: str, survey: Survey) -> list[str]:
    """Where it is measured, in the order of the belt's path; empty where the drive does not say."""
    layout = survey.layout
    if what == "keeper":
        return [k.name or f"keeper {i}" for i, k in enumerate(layout.keepers, 1)]
    if what == "idler":
        named = [w.name or f"wheel {i}" for i, w in enumerate(layout.wheels, 1) if w.role == "idler"]
        return named or (["idler"] if has_idler(survey) else [])
    belts = survey.first.family.side_by_side(survey.first.part)
    if what in BELTS:
        return [f"belt {i}" for i in range(1, belts + 1)] if belts > 1 else []
    if what not in WHEELS:
        return []
    grooved = what in GROOVED
    wheels = [w.name or f"wheel {i}" for i, w in enumerate(layout.wheels, 1) if not grooved or (w.face, w.contact) == ("grooved", "inside")]
    named = wheels or list(_pair(survey))
    return [f"{w}, groove {g}" for w in named for g in range(1, belts + 1)][:MOST] if grooved and belts > 1 else named[:MOST]


def whole_set(what: str, survey: Survey) -> list[str]:
    """What is renewed with a wheel that is at its limit.

    Every wheel on the path and what runs on them; nothing where the next belt is not ruined.
    """
    if what not in RUINS_THE_NEXT:
        return []
    called = survey.first.family.called(survey.first.part)
    if survey.layout.wheels:
        sizes = ((w.name or f"wheel {i}", f"{w.diameter.text} {w.diameter.unit}") for i, w in enumerate(survey.layout.wheels, 1))
        wheels = [_sized(name, size if size.split(" ")[0] else "") for name, size in sizes]
    else:
        wheels = [_sized(name, size) for name, size in zip(_pair(survey), (called.driver, called.driven), strict=True)]
    return [*wheels, called.runs]


def _pair(survey: Survey) -> tuple[str, str]:
    noun = NOUN.get(group_of(survey), "pulley")
    return f"driver {noun}", f"driven {noun}"


def _sized(name: str, size: str) -> str:
    return f"{name}, {size.strip()}" if size.strip() else name
