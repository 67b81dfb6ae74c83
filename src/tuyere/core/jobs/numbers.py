"""The numbers that stand with steps: those that come of what was asked before the job, and those said of every drive."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.drives.flat import FlatBelt
from tuyere.core.drives.flat.joint import JOINTS, LIGHT_LAP_M, LIGHT_M, Joint, cut, holes, lap_of, size_of, suits
from tuyere.core.entry.quantity import to_si
from tuyere.core.table import rows
from tuyere.core.working.figure import shown

OIL_DROPS = "2 or 3 drops, twice a year"  # common practice, no source
SQUARE_M_PER_M = 0.005  # out of square at most: common practice, from memory, low


@dataclass(frozen=True)
class Number:
    """What stands large beside a step, in both systems; `detail`: more in words; `page`: the station it is from; `source`: of its own, where it has one."""

    label: str
    us: str
    si: str
    detail: str = ""
    page: str = ""
    source: str = ""


def said(label: str, words: str, detail: str = "", page: str = "", source: str = "") -> Number:
    """A number that reads the same in both systems."""
    return Number(label, words, words, detail, page, source)


def length(label: str, value_m: float, detail: str = "", page: str = "", source: str = "") -> Number:
    """A length to set."""
    return Number(label, *shown(value_m, "length", to_set=True), detail, page, source)


def bushing(name: str) -> Number | None:
    """Screws and torque of a bushing by its name. Source: each row's own (from memory).

    >>> bushing("SK").us, bushing("SK").si
    ('15.0 lbf ft', '20.3 N m')
    """
    row = next((r for r in rows("bushings") if r["bushing"] == name), None)
    if row is None:
        return None
    us, si = shown(to_si(float(row["torque"]), "torque", row["torque_unit"]), "torque")
    return Number(f"Bushing {name}", us, si, f"{row['screws']}, clean and dry, in turn", source=f"{row['source']} ({row['confidence']})")


def joint_numbers(
    asked: Mapping[str, str], tape_m: float | None, thickness_m: float | None, belt: FlatBelt | None,
    width_m: float | None, smallest_pulley_m: float | None, velocity_m_s: float | None, take_up: bool,
) -> dict[str, Number]:  # fmt: skip
    """What a flat belt is cut, lapped and joined by; only what can be told."""
    joint = next((j for j in JOINTS if j == asked.get("joint")), None)
    thickness = thickness_m or (belt.thickness_m if belt else None)
    found: dict[str, Number] = {}
    if "place" in asked:
        found["place"] = said("Chosen", asked["place"])
    if width_m:
        found["square"] = length("Out of square at most", max(SQUARE_M_PER_M * width_m, 0.0002), f"over {shown(width_m, 'length', True)[0]}", "", "from memory (low)")  # fmt: skip
        in_first, in_second = holes(width_m)
        found["holes"] = said("Holes in each end", f"{in_first} + {in_second}", "in the row nearest the end, and in the second", source="Kent (from memory)")  # fmt: skip
    if joint is None or thickness is None:
        return found
    if smallest_pulley_m and velocity_m_s is not None:
        why_not = suits(joint, thickness, smallest_pulley_m, velocity_m_s)
        found["joint_suits"] = said(joint.capitalize(), "does not suit" if why_not else "suits", why_not)
    if (size := size_of(joint, thickness)) and size.size:
        found["hook_size"] = said("Size by thickness", size.size, f"holds about {size.holds:.0%} of the belt", source=size.source)
    return found | _cut(joint, tape_m, thickness, belt, width_m, take_up, asked.get("stretched", "").startswith("yes"))


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
        parts.append(
            f"nothing off for stretch: {told.why_no_stretch}" if told.why_no_stretch else f"less {show_both(told.stretch_m)} stretch"
        )
        if told.fastener_m:
            parts.append(f"less {show_both(told.fastener_m)} that the fasteners add")
        if told.lap_m:
            parts.append(f"plus {show_both(told.lap_m)} lap")
        found["cut_length"] = length("Cut to", told.length_m, "; ".join(parts))
    return found


def show_both(value_m: float) -> str:
    """A small length in both systems within a sentence."""
    us, si = shown(value_m, "length", to_set=True)
    return f"{us} ({si})"


def light_lap(asked: Mapping[str, str], thickness_m: float | None, belt: FlatBelt | None) -> bool:
    """Whether the belt is light enough that its lap alone makes it short."""
    thickness = thickness_m or (belt.thickness_m if belt else None)
    leather = belt is not None and belt.material == "leather"
    return bool(thickness and leather and asked.get("joint") == "cemented lap" and thickness <= LIGHT_M)


def elongation_limit(pitch_m: float, links: int, share: float) -> Number:
    """How long so many pitches measure at the limit.

    >>> elongation_limit(0.0254, 12, 0.03).us
    '12 23/64 in'
    """
    return length(f"{links} pitches at the limit", pitch_m * links * (1 + share), f"new {show_both(pitch_m * links)}; {share:.1%} longer")
