"""A flat belt on two pulleys: lengths at the inside and at mid-thickness, speeds with thickness, crown, face and tracking."""

from collections.abc import Mapping
from dataclasses import dataclass

from tuyere.core.basis.field import Note
from tuyere.core.basis.figure import both, fine
from tuyere.core.basis.reader import FieldReader
from tuyere.core.basis.typed import Typed
from tuyere.core.basis.verdict import Problem, Tone, Verdict
from tuyere.core.kinds.flat import FlatBelt, crown_height, face_width, flat_belts
from tuyere.core.mechanics.on_wheels.one_belt import PathAnswer, solve_belt
from tuyere.core.mechanics.on_wheels.wheels import BeltOnWheels, Lay, PathWheel

# Each field and how it is read.
FIELDS = {
    "flat_width": "belt_width",
    "flat_thickness": "flat_thickness",
    "driver_diameter": "driver_diameter",
    "driven_diameter": "driven_diameter",
    "driver_face": "belt_width",
    "driven_face": "belt_width",
    "driver_crown": "crown",
    "driven_crown": "crown",
    "centre_distance": "centre_distance",
    "driver_speed": "driver_speed",
}
SURFACES = ("crowned", "plain")
_QUARTER_FACE = 1.4  # old rule 1.4 to 1.5 belt widths: handbooks, low


_MISSING = Verdict(
    "length",
    Tone.OPEN,
    "Tape both pulleys, the centres, and the belt's thickness",
    "Thickness by callipers, or by choosing the kind of belt.",
)


@dataclass(frozen=True)
class FlatDrive:
    """The path (line at mid-thickness), lengths at the inside and at mid-thickness (m), speed ratio with thickness, and the crowns ISO 100
    gives (m).
    """

    answer: PathAnswer
    wheels: tuple[PathWheel, PathWheel]
    inside_m: float
    middle_m: float
    ratio: float
    crowns_m: tuple[float | None, float | None]
    lay: Lay = Lay.OPEN


@dataclass(frozen=True)
class FlatReading:
    """What was understood; `drive` is None until both diameters, the thickness and the centres are known."""

    drive: FlatDrive | None
    verdicts: tuple[Verdict, ...]
    notes: dict[str, Note]
    problems: tuple[Problem, ...]
    width_m: float | None = None


def read_flat(quantities: Mapping[str, Typed], words: Mapping[str, str]) -> FlatReading:
    """Read a flat-belt drive; each field with its problem beside it."""
    reader = FieldReader(quantities, words)
    values = {key: found for key, field in FIELDS.items() if (found := reader.value(key, field)) is not None}
    notes, problems, width = reader.notes, reader.problems, values.get("flat_width")
    kind = flat_belts().get(words.get("belt", ""))
    thickness = values.get("flat_thickness", kind.thickness_m if kind else None)
    wanted = ("driver_diameter", "driven_diameter", "centre_distance")
    if problems or thickness is None or not all(k in values for k in wanted):
        return FlatReading(None, (_MISSING,), notes, tuple(problems), width)
    lay = Lay(words["lay"]) if words.get("lay") in set(Lay) else Lay.OPEN
    r1, r2 = values["driver_diameter"] / 2, values["driven_diameter"] / 2
    wheels = (
        PathWheel("driver", "driver", 0.0, 0.0, r1 + thickness / 2, r1, face="flat"),
        PathWheel("driven wheel", "driven", values["centre_distance"], 0.0, r2 + thickness / 2, r2, face="flat"),
    )
    rotation = 1 if words.get("rotation") == "counter-clockwise" else -1
    answer = solve_belt(
        BeltOnWheels(wheels, lay, top_width_m=values.get("flat_width", 0.0), seat="rim"), rotation, values.get("driver_speed")
    )
    if not answer.path:
        return FlatReading(None, (), notes, tuple(Problem("centre_distance", p.sentence) for p in answer.problems), width)
    # The tape lies on the rims: every arc is half a thickness nearer its centre.
    inside = answer.path.length_m - thickness / 2 * sum(answer.path.wraps_rad)
    crowns = tuple(
        crown_height(values[f"{w}_diameter"], values[f"{w}_face"]) if f"{w}_face" in values else None for w in ("driver", "driven")
    )
    drive = FlatDrive(
        answer, wheels, inside, answer.path.length_m, (r1 + thickness / 2) / (r2 + thickness / 2), (crowns[0], crowns[1]), lay
    )
    verdicts = [
        *_fit(drive, values, words, kind, lay),
        *(v for v in answer.verdicts if v.topic in ("path", "slip")),
        *_lengths(drive, thickness),
    ]
    order = (Tone.STOP, Tone.WATCH, Tone.OPEN, Tone.GOOD)
    return FlatReading(drive, tuple(sorted(verdicts, key=lambda v: order.index(v.tone))), notes, (), width)


def _fit(drive: FlatDrive, values: Mapping[str, float], words: Mapping[str, str], kind: FlatBelt | None, lay: Lay) -> list[Verdict]:
    found = []
    least = kind.least_pulley_m(values.get("flat_thickness")) if kind else None
    if kind and least:
        small = 2 * min(w.rim_radius_m for w in drive.wheels)
        if small < least * (1 - 1e-6):
            found.append(
                Verdict(
                    "bend",
                    Tone.WATCH,
                    f"The {both(small)} pulley is small for {kind.name}",
                    f"It wants {both(least)} at least ({kind.source}): bent tighter it cracks.",
                )
            )
    width = values.get("flat_width")
    for side in ("driver", "driven"):
        face = values.get(f"{side}_face")
        if width and face:
            found += _face(side, width, face, lay)
    surfaces = {side: words.get(f"{side}_surface", "") for side in ("driver", "driven")}
    found += _crowns(surfaces, lay)
    for side, wanted in zip(("driver", "driven"), drive.crowns_m, strict=True):
        crown = values.get(f"{side}_crown")
        if crown is not None and wanted is not None and surfaces[side] == "crowned":
            found += _crown(side, crown, wanted)
    return found


def _face(side: str, width: float, face: float, lay: Lay) -> list[Verdict]:
    if face < width:
        return [
            Verdict(
                "face",
                Tone.STOP,
                f"The {side}'s face is narrower than the belt",
                f"{both(face)} against {both(width)}: the belt's edge hangs over and frays.",
            )
        ]
    wanted = _QUARTER_FACE * width if lay is Lay.QUARTER else face_width(width)
    if wanted and face < wanted * (1 - 0.02):
        rule = "1.4 belt widths on a quarter turn, low confidence" if lay is Lay.QUARTER else "ISO 22"
        return [
            Verdict(
                "face", Tone.WATCH, f"The {side}'s face leaves little beside the belt", f"{both(face)}; it wants {both(wanted)} ({rule})."
            )
        ]
    return []


def _crowns(surfaces: Mapping[str, str], lay: Lay) -> list[Verdict]:
    crowned = [side for side, said in surfaces.items() if said == "crowned"]
    if not all(surfaces.values()):
        return []
    if not crowned:
        return [
            Verdict(
                "track",
                Tone.WATCH,
                "Neither pulley is crowned: nothing holds the belt in the middle",
                "A flat belt climbs to the highest part of a crown; on plain pulleys the smallest misalignment runs it off.",
            )
        ]
    if len(crowned) == 2 and lay is not Lay.OPEN:
        return [
            Verdict(
                "track",
                Tone.WATCH,
                f"Both pulleys are crowned on a {lay} belt",
                "Crown one at most there: the belt arrives at an angle and two crowns fight each other (handbooks, medium).",
            )
        ]
    if len(crowned) == 2:
        return [
            Verdict(
                "track",
                Tone.OPEN,
                "Both pulleys are crowned: one is enough",
                "Usually the larger; the second only stretches the belt's middle.",
            )
        ]
    return [Verdict("track", Tone.GOOD, f"The {crowned[0]}'s crown holds the belt in the middle", "The belt climbs to its highest part.")]


def _crown(side: str, crown: float, wanted: float) -> list[Verdict]:
    if crown > 2 * wanted:
        return [
            Verdict(
                "crown",
                Tone.WATCH,
                f"The {side}'s crown is high",
                f"{fine(crown)}; ISO 100 gives {fine(wanted)}: too much stretches the belt's middle and lifts its edges.",
            )
        ]
    if crown < 0.5 * wanted:
        return [
            Verdict(
                "crown",
                Tone.WATCH,
                f"The {side}'s crown is worn low",
                f"{fine(crown)}; ISO 100 gives {fine(wanted)}: it holds the belt less.",
            )
        ]
    return [Verdict("crown", Tone.GOOD, f"The {side}'s crown is right", f"{fine(crown)}; ISO 100 gives {fine(wanted)}.")]


def _lengths(drive: FlatDrive, thickness: float) -> list[Verdict]:
    return [
        Verdict(
            "length",
            Tone.GOOD,
            f"Steel tape round both pulleys: {both(drive.inside_m)}",
            f"At mid-thickness {both(drive.middle_m)}: that is the length laid flat, before take-off for stretch. Thickness "
            f"{fine(thickness)} counts in the speeds too.",
        ),
    ]
