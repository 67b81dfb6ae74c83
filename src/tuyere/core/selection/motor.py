"""What an electric motor's shaft allows: smallest sheave and widest drive. NEMA MG 1 by frame; by power and speed where no frame is known; IEC shafts."""

from dataclasses import dataclass
from functools import cache

from tuyere.core.loads import OVERHUNG_FACTOR, overhung_load
from tuyere.core.origin import Confidence
from tuyere.core.quantity import from_si, to_si
from tuyere.core.table import rows

_RPM_APART = 0.12  # full-load speeds lie under the nominal ones that the tables print


@dataclass(frozen=True)
class MotorLimit:
    """Smallest classical (pitch) and narrow (outside) sheave, widest classical and narrow drive (m, None: not known), the pull that means (N)."""

    named: str
    classical_m: float
    narrow_m: float
    classical_width_m: float | None
    narrow_width_m: float | None
    pull_n: float
    confidence: Confidence
    source: str


@dataclass(frozen=True)
class Frame:
    """A motor frame's shaft: diameter and usable length (m), and whether it is meant for belts."""

    name: str
    standard: str
    shaft_m: float
    length_m: float
    belts: bool


@cache
def frames() -> dict[str, Frame]:
    """Every frame by its name, NEMA first."""
    return {
        r["frame"] if r["standard"] == "NEMA" else f"IEC {r['frame']}": Frame(
            r["frame"], r["standard"], to_si(float(r["shaft"]), "length", r["unit"]), to_si(float(r["length"]), "length", r["unit"]), r["belts"] == "yes"
        )
        for r in rows("motor_frames")
    }  # fmt: skip


def _pull(power_w: float, speed: float, least_m: float) -> float:
    return overhung_load(power_w, speed, least_m, OVERHUNG_FACTOR["v-belt"])


def limit(power_w: float, speed_rad_per_s: float, frame: str | None = None) -> MotorLimit | None:
    """The motor's limit by frame if it is in the table, else by power and speed; None where neither knows.

    The pull is what V-belts at that smallest sheave put on the shaft: the measure for other kinds of drive.

    >>> found = limit(to_si(10, "power", "hp"), to_si(1760, "rotation", "rpm"), "215T")
    >>> found and round(from_si(found.classical_m, "length", "in"), 1)
    3.8
    """
    hp, rpm = from_si(power_w, "power", "hp"), from_si(speed_rad_per_s, "rotation", "rpm")
    near = [r for r in rows("nema_motor_sheaves") if r["frame"] == frame and abs(float(r["rpm"]) / rpm - 1) < _RPM_APART]
    row = min((r for r in near if float(r["hp"]) >= hp * 0.999), key=lambda r: float(r["hp"]), default=None)
    if row:
        m = {
            k: to_si(float(row[k]), "length", "in") if row[k] else None
            for k in ("classical_min", "classical_max_width", "narrow_min", "narrow_max_width")
        }
        narrow = m["narrow_min"] or 0.0
        # Where only narrow belts are printed, their sheave is the least for any.
        classical = m["classical_min"] or narrow
        pull = _pull(to_si(float(row["hp"]), "power", "hp"), to_si(float(row["rpm"]), "rotation", "rpm"), classical)
        return MotorLimit(f"frame {frame}", classical, narrow, m["classical_max_width"], m["narrow_max_width"], pull,
                          Confidence(row["confidence"]), f"{row['source']}")  # fmt: skip
    table = rows("motor_sheave_by_power")
    speeds = {float(r["rpm"]) for r in table if abs(float(r["rpm"]) / rpm - 1) < _RPM_APART}
    if not speeds:
        return None
    at = min(speeds, key=lambda s: abs(s - rpm))
    row = min((r for r in table if float(r["rpm"]) == at and float(r["hp"]) >= hp * 0.999), key=lambda r: float(r["hp"]), default=None)
    if row is None:
        return None
    least = to_si(float(row["least"]), "length", "in")
    pull = _pull(to_si(float(row["hp"]), "power", "hp"), to_si(at, "rotation", "rpm"), least)
    return MotorLimit(f"{row['hp']} hp at {at:g} rpm", least, least, None, None, pull, Confidence(row["confidence"]), f"{row['source']} (from memory)")  # fmt: skip
