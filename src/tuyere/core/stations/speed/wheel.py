"""A wheel to turn down, machine or cast: finished sizes, the groove's form, the profile to draw, and how fast its rim may run."""

import math
from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.figure import both, shown
from tuyere.core.basis.origin import Confidence
from tuyere.core.basis.quantity import parse, to_si
from tuyere.core.basis.table import rows
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds import v_belt

Point = tuple[float, float]


@dataclass(frozen=True)
class Material:
    """What a wheel is made of.

    Its rim's speed limit (m/s), density (kg/m3), shrinkage of a casting (share), allowance on a machined face (m).
    """

    name: str
    title: str
    rim_limit_m_per_s: float
    density_kg_m3: float
    shrinkage: float
    allowance_m: float
    confidence: Confidence
    source: str


@cache
def materials() -> dict[str, Material]:
    """Every material by name."""
    return {
        r["material"]: Material(
            r["material"],
            r["title"],
            to_si(float(r["rim_limit"]), "velocity", "ft/min"),
            float(r["density_kg_m3"]),
            _inches(r["shrinkage_in_ft"]) / (12 * 0.0254),
            _inches(r["allowance_in"]),
            Confidence(r["confidence"]),
            r["source"],
        )
        for r in rows("wheel_materials")
    }


def _inches(text: str) -> float:
    read = parse(text, "length", "in")
    assert read
    return read.value_si


@dataclass(frozen=True)
class Pattern:
    """What a pattern for casting measures (m): outside, face and core for the bore."""

    outside_m: float
    face_m: float
    core_m: float


def pattern(made: "MadeWheel") -> Pattern:
    """A cast wheel's pattern: its allowance on every machined face, then larger by what the metal shrinks.

    Source: pattern makers' rules (Machinery's Handbook, from memory, medium).

    >>> from tuyere.core.kinds import v_belt
    >>> made = made_wheel(v_belt.section("B"), 0.2, 1, 0.028, materials()["cast iron"])
    >>> found = pattern(made)
    >>> round((found.outside_m / (made.outside_m + 2 * 0.003175) - 1) * 12 / 1, 3)
    0.125
    """
    of, add = 1 + made.material.shrinkage, 2 * made.material.allowance_m
    return Pattern((made.outside_m + add) * of, (made.face_m + add) * of, max(0.0, made.bore_m - add) * of)


@dataclass(frozen=True)
class MadeWheel:
    """A sheave as it leaves the lathe (m).

    Outside and line diameter, face width, grooves of the table, and half its profile from the left edge.

    `profile`: (along the shaft, from the axis), the upper half; `radial_run_out_m`, `axial_run_out_m`: full indicator readings allowed.
    """

    section: v_belt.Section
    outside_m: float
    line_m: float
    face_m: float
    grooves: int
    groove: v_belt.Groove
    bore_m: float
    profile: tuple[Point, ...]
    radial_run_out_m: float
    axial_run_out_m: float
    most_speed: float
    rim_stress_pa: float
    material: Material


def made_wheel(section: v_belt.Section, line_m: float, grooves: int, bore_m: float, material: Material) -> MadeWheel:
    """A V-belt sheave of the given line (datum, pitch) diameter. Raises BeltError where the groove is not tabled or the wheel cannot be.

    Run-out: radial 0.010 in to 10 in outside, 0.0005 in more for each inch above; axial 0.001 in an inch of outside diameter to 20 in
    (IP-20 form, from memory; medium, axial low). Rim stress ρ v²: a free ring's (any machine design text).
    """
    groove = v_belt.groove(section, line_m)
    if groove.spacing_m is None or groove.edge_m is None:
        raise v_belt.BeltError(f"The table has no groove spacing for section {section.name}: take it from the wheel that is there.")
    outside = line_m + groove.two_hd_m
    if outside / 2 - groove.depth_min_m <= bore_m / 2 + 0.002:
        raise v_belt.BeltError("The grooves would reach the bore: a larger wheel, or a smaller shaft.")
    face = (grooves - 1) * groove.spacing_m + 2 * groove.edge_m
    inches = outside / 0.0254
    radial = 0.010 + 0.0005 * max(0.0, inches - 10)
    axial = 0.001 * min(inches, 20) + 0.0005 * max(0.0, inches - 20)
    limit = material.rim_limit_m_per_s
    return MadeWheel(
        section,
        outside,
        line_m,
        face,
        grooves,
        groove,
        bore_m,
        _profile(outside / 2, bore_m / 2, face, grooves, groove),
        radial * 0.0254,
        axial * 0.0254,
        2 * limit / outside,
        material.density_kg_m3 * limit**2,
        material,
    )


def _profile(outside: float, bore: float, face: float, grooves: int, g: v_belt.Groove) -> tuple[Point, ...]:
    """The upper half in section, closed along the bore: rim, then groove after groove, each with flanks at its angle and a flat bottom."""
    assert g.spacing_m and g.edge_m
    half = g.top_width_m / 2
    bottom = half - g.depth_min_m * math.tan(math.radians(g.angle_deg) / 2)
    points: list[Point] = [(0.0, bore), (0.0, outside)]
    for k in range(grooves):
        at = g.edge_m + k * g.spacing_m
        points += [
            (at - half, outside),
            (at - bottom, outside - g.depth_min_m),
            (at + bottom, outside - g.depth_min_m),
            (at + half, outside),
        ]
    return (*points, (face, outside), (face, bore))


def judge(made: MadeWheel, speed: float | None) -> list[Verdict]:
    """How fast it may turn, against the speed it is for (rad/s), and whether the belt bends too sharply on it."""
    most, limit = shown(made.most_speed, "rotation")[0], both(made.material.rim_limit_m_per_s, "velocity")
    source = f"{made.material.source}; {made.material.confidence} confidence"
    found = []
    if speed and speed > made.most_speed:
        found.append(
            Verdict(
                "wheel",
                Tone.STOP,
                f"Stop: of {made.material.title} it may turn {most} at most",
                f"At {shown(speed, 'rotation')[0]} its rim passes {limit}: {source}.",
            )
        )
    else:
        found.append(
            Verdict(
                "wheel",
                Tone.GOOD if speed else Tone.OPEN,
                f"Of {made.material.title} it may turn up to {most}",
                f"Rim limit {limit}: {source}. Its own speed then stresses a ring to {made.rim_stress_pa / 1e6:.1f} MPa (ρ v²).",
            )
        )
    least = v_belt.min_datum_diameter(made.section)
    if made.line_m < least - 1e-6:
        found.append(
            Verdict(
                "wheel",
                Tone.WATCH,
                f"Under the smallest for {made.section.name}",
                f"{both(least, decimals=(1, 0))} datum at least: the belt bends too sharply and dies early.",
            )
        )
    return found


# What to look at on a wheel that was cast or turned here. Common practice, no source.
CHECKS = (
    (
        "voids",
        "Voids: none that can be seen in a groove's side, at the rim's edge or in the hub; ring it with a hammer, a cracked one sounds "
        "dead. Cracked is scrap: never welded.",
    ),
    (
        "bore",
        "Bore: a hand-push fit on the shaft, square to the face; keyway to the table, the key tight at its sides, the set screw over the "
        "key.",
    ),
    ("run-out", "Run-out: a dial gauge at the rim and at the face, turned once by hand; both within the figures here."),
    ("balance", "Balance: on its shaft between knife edges it stays where it is put; over 30 m/s it is balanced on a machine."),
    ("groove", "Groove: a new belt's back sits flush with the rim or a little proud; sides smooth, no ridge, no chatter marks."),
)
