"""What a flat belt tells those who join it."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.figure import shown
from tuyere.core.basis.number import Number, length, said, to_set
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.kinds.flat import FlatBelt, flat_belts
from tuyere.core.kinds.flat.joint import JOINTS, LIGHT_LAP_M, LIGHT_M, Joint, cut, holes, lap_of, size_of, suits
from tuyere.core.kinds.flat.survey import read_flat
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.told import Asked, Told

SQUARE_M_PER_M = 0.005  # out of square at most: common practice, from memory, low


@dataclass(frozen=True)
class ToJoin:
    """A flat belt as it is surveyed and asked for: thickness, tape, width, the smallest pulley (m)."""

    belt: FlatBelt | None
    thickness_m: float | None
    tape_m: float | None
    width_m: float | None
    smallest_m: float | None


def to_join(part: Part, answers: Mapping[str, str]) -> ToJoin:
    """By its survey; a tape and a thickness given before the job go before."""
    asked = {k: Typed(answers[k], "") for k in ("tape", "thickness") if answers.get(k)}
    reader = FieldReader({**part.quantities, **asked}, {})
    drive, belt = read_flat(part.quantities, part.words).drive, flat_belts().get(part.words.get("belt", ""))
    sides = [d for k in ("driver_diameter", "driven_diameter") if (d := reader.value(k, k))]
    thickness = reader.value("thickness", "flat_thickness") or reader.value("flat_thickness", "flat_thickness")
    tape = reader.value("tape", "outside_length") or (drive.inside_m if drive else None)
    return ToJoin(
        belt, thickness or (belt.thickness_m if belt else None), tape, reader.value("flat_width", "belt_width"), min(sides, default=None)
    )


def told(part: Part, asked: Asked) -> Told:
    """What it tells a job."""
    on = to_join(part, asked.answers)
    numbers = joint_numbers(asked.answers, on, asked.speed, asked.takes_up)
    light = ("light lap",) if light_lap(asked.answers, on) else ()
    if on.thickness_m is None or on.smallest_m is None:
        return Told(numbers, light, {"joint": {}})
    against: dict[str, str] = {j: why for j in JOINTS if (why := suits(j, on.thickness_m, on.smallest_m, asked.speed or 0.0))}
    return Told(numbers, light, {"joint": against})


def joint_numbers(asked: Mapping[str, str], on: ToJoin, velocity_m_s: float | None, takes_up: bool) -> dict[str, Number]:
    """What a flat belt is cut, lapped and joined by; only what can be told."""
    joint = next((j for j in JOINTS if j == asked.get("joint")), None)
    thickness, width_m = on.thickness_m, on.width_m
    found: dict[str, Number] = {}
    if "place" in asked:
        found["place"] = said("Chosen", asked["place"])
    if width_m:
        found["square"] = length(
            "Out of square at most",
            max(SQUARE_M_PER_M * width_m, 0.0002),
            f"over {shown(width_m, 'length', True)[0]}",
            "",
            "from memory (low)",
        )
        in_first, in_second = holes(width_m)
        found["holes"] = said(
            "Holes in each end", f"{in_first} + {in_second}", "in the row nearest the end, and in the second", source="Kent (from memory)"
        )
    if joint is None or thickness is None:
        return found
    if on.smallest_m and velocity_m_s is not None:
        why_not = suits(joint, thickness, on.smallest_m, velocity_m_s)
        found["joint_suits"] = said(joint.capitalize(), "does not suit" if why_not else "suits", why_not)
    if (size := size_of(joint, thickness)) and size.size:
        found["hook_size"] = said("Size by thickness", size.size, f"holds about {size.holds:.0%} of the belt", source=size.source)
    return found | _cut(joint, on.tape_m, thickness, on.belt, width_m, takes_up, asked.get("stretched", "").startswith("yes"))


def _cut(
    joint: Joint, tape_m: float | None, thickness_m: float, belt: FlatBelt | None, width_m: float | None, take_up: bool, stretched: bool
) -> dict[str, Number]:
    found: dict[str, Number] = {}
    if tape_m:
        found["tape_round"] = length("Tape round both pulleys", tape_m)
    if belt is None or width_m is None:
        return found
    plies = 2 if belt.made.startswith("2") else 1
    lap = lap_of(belt.material, thickness_m, width_m, plies) if joint == "cemented lap" else None
    if lap:
        detail = "common practice, no source" if lap == LIGHT_LAP_M else f"on {shown(width_m, 'length', True)[0]} of width"
        found["lap"] = length("Lap", lap, detail, source="shop handbooks (from memory, low)")
    if tape_m and (told := cut(tape_m, thickness_m, joint, belt.material, width_m, plies, take_up, stretched)):
        parts = [f"mid-thickness {shown(told.middle_m, 'length', True)[0]}"]
        parts.append(f"nothing off for stretch: {told.why_no_stretch}" if told.why_no_stretch else f"less {to_set(told.stretch_m)} stretch")
        if told.fastener_m:
            parts.append(f"less {to_set(told.fastener_m)} that the fasteners add")
        if told.lap_m:
            parts.append(f"plus {to_set(told.lap_m)} lap")
        found["cut_length"] = length("Cut to", told.length_m, "; ".join(parts))
    return found


def light_lap(asked: Mapping[str, str], on: ToJoin) -> bool:
    """Whether the belt is light enough that its lap alone makes it short."""
    leather = on.belt is not None and on.belt.material == "leather"
    return bool(on.thickness_m and leather and asked.get("joint") == "cemented lap" and on.thickness_m <= LIGHT_M)
