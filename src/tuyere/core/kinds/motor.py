"""What an electric motor's shaft allows: smallest sheave and widest drive.

NEMA MG 1 by frame; by power and speed where no frame is known; IEC shafts.
"""

from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.limit import limit as limit_of
from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.mechanics.loads import overhung_load

_RPM_APART = 0.12  # full-load speeds lie under the nominal ones that the tables print


@dataclass(frozen=True)
class MotorLimit:
    """Smallest classical (pitch) and narrow (outside) sheave, widest classical and narrow drive (m, None.

    Not known), the pull that means (N).
    """

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
            r["frame"],
            r["standard"],
            to_si(float(r["shaft"]), "length", r["unit"]),
            to_si(float(r["length"]), "length", r["unit"]),
            r["belts"] == "yes",
        )
        for r in rows("motor_frames")
    }


def _pull(power_w: float, speed: float, least_m: float) -> float:
    return overhung_load(power_w, speed, least_m, limit_of("overhung factor of V-belts").value)


@dataclass(frozen=True)
class NotJudged:
    """Why a motor's shaft is not judged; `stop`: it must not carry a belt at all."""

    says: str
    stop: bool = False


def limit(power_w: float, speed_rad_per_s: float, frame: str | None = None) -> MotorLimit | NotJudged:
    """The motor's limit by its frame, or by power and speed where no frame is named.

    A frame that the table does not have there is not judged.

    The pull is what V-belts at that smallest sheave put on the shaft: the measure for other kinds of drive.

    >>> found = limit(to_si(10, "power", "hp"), to_si(1760, "rotation", "rpm"), "215T")
    >>> round(from_si(found.classical_m, "length", "in"), 1)
    3.8
    >>> limit(to_si(30, "power", "hp"), to_si(1760, "rotation", "rpm"), "286TS").stop
    True
    """
    hp, rpm = from_si(power_w, "power", "hp"), from_si(speed_rad_per_s, "rotation", "rpm")
    if frame:
        return _by_frame(frame, hp, rpm)
    table = rows("motor_sheave_by_power")
    speeds = {float(r["rpm"]) for r in table if abs(float(r["rpm"]) / rpm - 1) < _RPM_APART}
    at = min(speeds, key=lambda s: abs(s - rpm), default=0.0)
    row = min((r for r in table if float(r["rpm"]) == at and float(r["hp"]) >= hp * 0.999), key=lambda r: float(r["hp"]), default=None)
    if row is None:
        return NotJudged(f"The tables have no motor of {hp:.3g} hp at {rpm:.0f} rpm. {_ASK_ITS_SHEET}")
    classical, narrow = (to_si(float(row[k]), "length", "in") for k in ("classical", "narrow"))
    pull = _pull(to_si(float(row["hp"]), "power", "hp"), to_si(at, "rotation", "rpm"), classical)
    return MotorLimit(
        f"{row['hp']} hp at {at:g} rpm",
        classical,
        narrow,
        None,
        None,
        pull,
        Confidence(row["confidence"]),
        f"{row['source']} (from memory)",
    )


_ASK_ITS_SHEET = "Its own sheet gives the pull that its shaft stands: write that as the limit, and the smallest wheel follows."


def _by_frame(frame: str, hp: float, rpm: float) -> MotorLimit | NotJudged:
    named = frame.strip().upper().removeprefix("FRAME ")
    known = frames().get(named) or frames().get(frame)
    if named.endswith("TS") or (known is not None and not known.belts):
        return NotJudged(
            f"Frame {named} has a short shaft, for couplings only (NEMA MG 1): no belt or chain goes on it. Fit the long shaft of frame "
            f"{named.removesuffix('S')}.",
            stop=True,
        )
    if known is not None and known.standard == "IEC":
        return NotJudged(f"IEC frames have no table of sheaves. {_ASK_ITS_SHEET}")
    near = [r for r in rows("nema_motor_sheaves") if r["frame"] == named and abs(float(r["rpm"]) / rpm - 1) < _RPM_APART]
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
        return MotorLimit(
            f"frame {named}",
            classical,
            narrow,
            m["classical_max_width"],
            m["narrow_max_width"],
            pull,
            Confidence(row["confidence"]),
            f"{row['source']}",
        )
    most = max((float(r["hp"]) for r in near), default=0.0)
    why = f"goes to {most:g} hp at this speed in the table" if most else "has no row for this speed in the table"
    return NotJudged(f"Frame {named} {why}, and this is {hp:.3g} hp at {rpm:.0f} rpm: read its plate again. {_ASK_ITS_SHEET}")


def short(found: MotorLimit, narrow: bool, line_m: Numbers, outside_m: Numbers) -> Numbers:
    """How far a driver sheave stays under what the motor's shaft wants, m (zero or less: none). One or many.

    narrow: whether its belts are narrow ones, held by the outside diameter; classical ones are held by the datum (the older pitch)
    diameter.
    """
    return found.narrow_m - outside_m if narrow else found.classical_m - line_m
