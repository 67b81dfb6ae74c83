"""What is asked of a drive, as typed: each field on its own, what is left empty taken from the drive's survey."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.limit import limit as trade_limit
from tuyere.core.basis.page import Page
from tuyere.core.basis.quantity import System, show
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem as Refused
from tuyere.core.drive.wanted import wanted_words
from tuyere.core.kinds.motor import MotorLimit, NotJudged, frames, limit
from tuyere.core.kinds.problem import Demands, Kept
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.service import IDLERS, STARTS, SURROUNDINGS
from tuyere.core.kinds.spec import DriverClass, DriveSpec
from tuyere.core.stations.size.stock import choices, usual

# Each quantity, and the field it is read as.
FIELDS = {
    "power": "driver_power",
    "driver_speed": "driver_speed",
    "driven_speed": "design_speed",
    "hours": "hours_per_day",
    "centre_low": "centre_distance",
    "centre_high": "centre_distance",
    "driver_most": "driver_diameter",
    "driven_most": "driven_diameter",
    "width_most": "drive_width",
    "driver_shaft": "shaft_diameter",
    "driven_shaft": "shaft_diameter",
    "pull_most": "shaft_pull",
    "keep_driver_outside": "driver_diameter",
    "keep_driven_outside": "driven_diameter",
}
CENTRE_GIVE = 0.03  # either way, where nobody says how far the motor slides: common practice, no source
TOLERANCE = 3.0  # per cent
_ASK = {"power": "driver_power", "driver_speed": "driver_speed", "driven_speed": "driven_speed", "centre_low": "centre_room"}


@dataclass(frozen=True)
class SizeReading:
    """The problem, once enough is known.

    What was taken from the survey, by field, in both systems; what is still missing, and what is not judged, in words.
    """

    problem: Demands | None
    notes: dict[str, Note]
    problems: tuple[Refused, ...]
    from_survey: dict[str, tuple[str, str]]
    missing: tuple[str, ...]
    not_judged: tuple[str, ...] = ()


def read_size(
    quantities: Mapping[str, Typed], words: Mapping[str, str], families: Sequence[str], only: Sequence[str], base: DriveSpec, page: Page
) -> SizeReading:
    """Read what is asked; `base` and `page` are the drive as surveyed, or empty."""
    reader = FieldReader(quantities, words)
    typed = {key: reader.value(key, field) for key, field in FIELDS.items()}
    found, taken = _with_survey(typed, base, page)
    least_teeth = reader.whole("least_teeth", 7, 60) or int(trade_limit("smooth sprocket").value)
    keep = {side: _kept(side, reader, found) for side in ("driver", "driven")}
    tolerance = _percent("tolerance", words.get("tolerance", ""), TOLERANCE, reader)
    allowed = frozenset(f for f in choices() if f in families) or usual()
    missing = tuple(wanted_words()[said].says for key, said in _ASK.items() if found.get(key) is None)
    driven_class = words.get("driven_class") or base.driven_class or ""
    if driven_class not in {c.name for c in duties.driven_classes()}:
        driven_class = ""
        missing = (*missing, wanted_words()["driven_class"].says)
    if base.driven_class and not words.get("driven_class"):
        taken["driven_class"] = (base.driven_class, base.driven_class)
    ambient = reader.celsius("ambient")
    if reader.problems or missing:
        return SizeReading(None, reader.notes, tuple(reader.problems), taken, missing)
    low, high = found["centre_low"] or 0.0, found["centre_high"] or 0.0
    if high < low:
        reader.problems.append(Refused("centre_high", "The far end of the room is nearer than the near end: swap them."))
        return SizeReading(None, reader.notes, tuple(reader.problems), taken, ())
    power, speed = found["power"] or 0.0, found["driver_speed"] or 0.0
    driver_class: DriverClass = "high" if (words.get("driver_class") or base.driver_class) == "high" else "normal"
    frame = words.get("frame", "")
    limited = limit(power, speed, frame or None) if words.get("motor") == "yes" or frame else None
    if isinstance(limited, NotJudged) and limited.stop:
        reader.problems.append(Refused("frame", limited.says))
        return SizeReading(None, reader.notes, tuple(reader.problems), taken, ())
    motor = limited if isinstance(limited, MotorLimit) else None
    not_judged = (f"The motor's shaft is not judged. {limited.says}",) if isinstance(limited, NotJudged) else ()
    shaft = found["driver_shaft"] or (frames()[frame].shaft_m if frame in frames() else None)
    problem = Demands(
        power,
        speed,
        found["driven_speed"] or 0.0,
        tolerance / 100,
        driven_class,
        driver_class,
        (found["hours"] or 8 * 3600) / 3600,
        idler=reader.one_of("idler", tuple(IDLERS)) or base.idler,
        surroundings=reader.one_of("surroundings", tuple(SURROUNDINGS)) or base.surroundings,
        starts=reader.one_of("starts", tuple(STARTS)) or base.starts,
        ambient_c=ambient,
        centre_low_m=low,
        centre_high_m=high,
        driver_most_m=found["driver_most"],
        driven_most_m=found["driven_most"],
        width_most_m=found["width_most"],
        driver_shaft_m=shaft,
        driven_shaft_m=found["driven_shaft"],
        pull_most_n=found["pull_most"],
        motor=motor,
        reserve=words.get("reserve") == "yes",
        least_chain_teeth=least_teeth,
        fast_wheels=words.get("fast_wheels") == "yes",
        families=allowed,
        kinds=frozenset(only),
        keep_driver=keep["driver"],
        keep_driven=keep["driven"],
        centre_line_deg=base.centre_line_deg,
        rotation=base.rotation,
    )
    return SizeReading(problem, reader.notes, tuple(reader.problems), taken, (), not_judged)


def _with_survey(typed: dict[str, float | None], base: DriveSpec, page: Page) -> tuple[dict[str, float | None], dict[str, tuple[str, str]]]:
    """Empty fields filled from the drive as surveyed; what was filled, as shown in both systems."""
    own = {
        "power": base.driver_power.value if base.driver_power else None,
        "driver_speed": base.driver_speed.value if base.driver_speed else None,
        "driven_speed": base.design_speed.value
        if base.design_speed
        else page.values["driven_speed"].n
        if page.has("driven_speed")
        else None,
        "hours": base.hours_per_day.value if base.hours_per_day else None,
    }
    if page.has("centre_distance"):
        centre = page.values["centre_distance"].n
        closer, away = base.slide
        own["centre_low"] = centre - (closer.value if closer else CENTRE_GIVE * centre)
        own["centre_high"] = centre + (away.value if away else CENTRE_GIVE * centre)
    found = dict(typed)
    taken: dict[str, tuple[str, str]] = {}
    for key, value in own.items():
        if found[key] is None and value is not None:
            found[key] = value
            kind = {"power": "power", "driver_speed": "rotation", "driven_speed": "rotation", "hours": "duration"}.get(key, "length")
            decimals = (None, None) if kind == "power" else (1, 0) if kind == "length" else (0, 0)
            taken[key] = (show(value, kind, System.US, decimals[0]), show(value, kind, System.SI, decimals[1]))
    if found["centre_low"] is not None and found["centre_high"] is None:
        found["centre_high"] = found["centre_low"] * (1 + 2 * CENTRE_GIVE)
    if found["centre_high"] is not None and found["centre_low"] is None:
        found["centre_low"] = found["centre_high"] * (1 - 2 * CENTRE_GIVE)
    return found, taken


def _kept(side: str, reader: FieldReader, found: Mapping[str, float | None]) -> Kept | None:
    fits = reader.words.get(f"keep_{side}_fits", "")
    if not fits:
        return None
    teeth, outside = reader.whole(f"keep_{side}_teeth", 6, 300), found[f"keep_{side}_outside"]
    if teeth is None and outside is None and not any(p.field == f"keep_{side}_teeth" for p in reader.problems):
        reader.problems.append(Refused(f"keep_{side}_fits", "Give its outside diameter, or its teeth, so that it can stay."))
    return Kept(fits, outside, teeth)


def _percent(key: str, text: str, usual: float, reader: FieldReader) -> float:
    cleaned = text.strip().rstrip("%").strip().replace(",", ".")
    if not cleaned:
        return usual
    try:
        value = float(cleaned)
    except ValueError:
        value = -1.0
    if not 0.1 <= value <= 50:
        reader.problems.append(Refused(key, "Write the speed's tolerance in per cent, such as 3: from 0.1 to 50."))
        return usual
    return value
