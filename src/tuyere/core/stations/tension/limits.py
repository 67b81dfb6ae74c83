"""What was said once of a stage's shafts, margins and manual, and is kept with it."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.limit import limit
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.table import rows
from tuyere.core.basis.typed import Typed
from tuyere.core.drive.stage import TightStage
from tuyere.core.kinds.rating.duties import driven_classes
from tuyere.core.kinds.starts import start_times, starts
from tuyere.core.mechanics.tension.window import Shaft
from tuyere.core.stations.tension.grip import surfaces

BEARINGS = ("ball", "roller", "bushing")
PUSHES = ("belt", "rib", "band")


@dataclass(frozen=True)
class Holds:
    """`grip`: the margin, how many times the load it is to hold.

    `start`, `jolt`: how many times the torque comes at a start and in a jolt.

    `start_by`: how it is started, empty while nobody said. `surface`: what its grip is like; `lets_go`: the ratio at which somebody said
    it does. `manual_within`: give or take of the manual's figure (a share), None where nobody typed it.
    """

    grip: float
    start: float
    start_by: str
    surface: str
    lets_go: float | None
    joint: str
    jolt: float
    jolt_is_assumed: bool
    shafts: tuple[Shaft, ...]
    screw_pitch_m: float | None
    manual_force_n: float | None
    manual_deflection_m: float | None
    manual_pushes: str
    manual_tension_n: float | None
    manual_within: float | None
    by_manual: bool
    arms: tuple[float, ...] | None = None


def read_holds(stage: TightStage, quantities: Mapping[str, Typed], words: Mapping[str, str], reader: FieldReader) -> Holds:
    """Read what is kept; each problem beside its field. Fields of a wheel's shaft begin with its place, from 1: `wheel_1_overhang`."""
    inner = FieldReader(quantities, words, reader.notes, reader.problems)
    shock = next((float(r["k"]) for r in rows("shock_factors") if r["driven_class"] == stage.driven_class), None)
    known = stage.driven_class in {c.name for c in driven_classes()} and shock is not None
    grip = inner.number("grip", 1, 3, "Write how many times the load it should hold before it slips, 1 to 3, such as 1.3.")
    start = inner.number("start", 0.5, 5, "Write how many times the running torque comes at a start, such as 2.")
    jolt = inner.number("jolt", 1, 10, "Write how many times the running torque a jolt brings, such as 2.")
    start_by = inner.one_of("start_by", tuple(c.key for c in starts())) or ""
    within = inner.number("manual_within", 1, 50, "Write the give or take of the manual's figure in per cent, 1 to 50, such as 10.")
    return Holds(
        grip or limit("grip kept in hand").value,
        start or start_times(start_by or "direct", stage.high_torque),
        start_by if not start else "as said",
        inner.one_of("surface", tuple(c.key for c in surfaces())) or "dry",
        inner.number(
            "lets_go",
            1.2,
            30,
            "Write the pull of the tight strand over the slack one at which it lets go on half a turn, 1.2 to 30, such as 9.",
        ),
        words.get("joint", ""),
        jolt or (shock if known and shock else limit("jolt of an unknown machine").value),
        jolt is None and not known,
        tuple(_shaft(k, inner) for k in range(len(stage.wheels))),
        inner.value("screw_pitch", "screw_pitch"),
        inner.value("manual_force", "force"),
        inner.value("manual_deflection", "deflection"),
        inner.one_of("manual_pushes", PUSHES) or "",
        inner.value("manual_tension", "belt_tension"),
        within / 100 if within else None,
        words.get("aim_by") == "manual",
        _arms(stage, inner),
    )


def _arms(stage: TightStage, reader: FieldReader) -> tuple[float, ...] | None:
    """Of a pivoted base on two wheels, by run: the one that leaves the driver is the slack one."""
    tight, slack = reader.value("strand_arm_1", "lever_arm"), reader.value("strand_arm_2", "lever_arm")
    return (slack, tight) if tight and slack and len(stage.wheels) == 2 else None


def _shaft(k: int, reader: FieldReader) -> Shaft:
    at = f"wheel_{k + 1}_"
    bearing = reader.one_of(f"{at}bearing", BEARINGS) or ""
    life = reader.value(f"{at}life", "set_hours")
    span, over = reader.value(f"{at}bearing_span", "bearing_span"), reader.value(f"{at}overhang", "overhang")
    bore, shaft = reader.value(f"{at}shaft", "shaft_diameter"), reader.value(f"{at}shaft", "shaft_diameter")
    bush = bearing == "bushing"
    return Shaft(
        k,
        over,
        span,
        None if bush else reader.value(f"{at}rating", "bearing_rating"),
        "roller" if bearing == "roller" else "ball",
        life / 3600 if life else limit("bearing life wanted").value,
        reader.value(f"{at}pull", "shaft_pull"),
        reader.value(f"{at}weight", "force") or 0.0,
        bore if bush else None,
        reader.value(f"{at}bushing_length", "bushing_length") if bush else None,
        limit("bronze pressure").value,
        limit("bronze pressure times speed").value,
        shaft,
        limit("bending of a shaft").value,
        reader.value(f"{at}mounts", "force"),
    )
