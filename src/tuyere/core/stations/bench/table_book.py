"""The tables as a person reads them: titled, every figure in both systems, with source and confidence."""

import re
from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import about, rows
from tuyere.core.kinds.v_belt import lengths, section

# How a column's figures are to be read: a kind with the unit they are kept in (None: the row's own unit column).
_Kinds = dict[str, tuple[str, str | None]]
_UNITS = {
    "length": ("in", "mm"),
    "force": ("lbf", "N"),
    "velocity": ("ft/min", "m/s"),
    "mass": ("lb/ft", "kg/m"),
    "torque": ("lbf·ft", "N·m"),
}
_LB_PER_FT = 0.45359237 / 0.3048
_LBF_FT = 4.4482216152605 * 0.3048


@dataclass(frozen=True)
class Cell:
    """One figure or word in both systems."""

    us: str
    si: str


@dataclass(frozen=True)
class Column:
    """A column's heading and its units; `number` for figures (set right)."""

    key: str
    label: str
    us_unit: str
    si_unit: str
    number: bool


@dataclass(frozen=True)
class Table:
    """One table: what it is of, notes, columns, and rows of cells; source and confidence beside each row."""

    name: str
    title: str
    group: str
    notes: tuple[str, ...]
    columns: tuple[Column, ...]
    rows: tuple[tuple[Cell, ...], ...]
    sources: tuple[str, ...]
    confidences: tuple[str, ...]


@dataclass(frozen=True)
class _Entry:
    title: str
    group: str
    kinds: _Kinds
    labels: dict[str, str]


def _lengths(*columns: str, unit: str | None = None) -> _Kinds:
    return {c: ("length", unit) for c in columns}


BOOK: dict[str, _Entry] = {
    "v_sections": _Entry(
        "V-belt sections",
        "Belts",
        _lengths("top_width", "height", "min_diameter", "step", "to_datum", "to_datum_240", "to_outside", "to_outside_240", "to_inside")
        | {"mass": ("mass", None), "max_speed": ("velocity", None), "stiffness": ("force", None)},
        {
            "named_by": "number names",
            "step": "one unit of the number",
            "to_datum": "add for datum",
            "to_datum_240": "from 240: datum",
            "to_outside": "add for outside",
            "to_outside_240": "from 240: outside",
            "to_inside": "add for inside",
            "common": "how common",
            "min_diameter": "smallest wheel",
            "min_diameter_basis": "measured as",
        },
    ),
    "v_belt_lengths": _Entry(
        "Standard lengths", "Belts", _lengths("length"), {"number": "number in the name", "length": "measuring length"}
    ),
    "v_belt_length_tolerance": _Entry("Length tolerances", "Belts", _lengths("length_over", "length_to_incl", "upper", "lower"), {}),
    "v_belt_matching": _Entry("Matched sets", "Belts", _lengths("length_over", "length_to_incl", "largest_difference"), {}),
    "v_belt_trade_range": _Entry("Lengths to be had", "Belts", {}, {}),
    "v_belt_allowance": _Entry("Room to fit and take up", "Belts", _lengths("installation", "takeup"), {"number_over": "number over"}),
    "v_joined": _Entry("Joined belts", "Belts", _lengths("spacing"), {"spacing": "rib to rib", "joined_name": "joined name"}),
    "v_alike": _Entry("Same belt or look-alike", "Belts", {}, {}),
    "toothed_profiles": _Entry(
        "Toothed belts",
        "Belts",
        _lengths("pitch", "tooth_root_width", "tooth_height", "belt_height", "line_under_tip", "root_radius", unit="mm"),
        {
            "flank_angle": "flank angle °",
            "line_under_tip": "line over pulley's tip",
            "named_by": "named by",
            "common": "how common",
            "confidence_line": "how sure of the line",
            "widths": "widths, mm",
        },
    ),
    "toothed_lengths": _Entry("Toothed belts: standard teeth", "Belts", {}, {"pitch_name": "pitch", "code": "length code"}),
    "chains": _Entry(
        "Roller chains",
        "Chains",
        _lengths("pitch", "roller", "inner_width", "pin", "plate_height", "plate_thickness", "transverse_pitch"),
        {
            "inner_width": "gap inside",
            "strength_n": "strength, N",
            "mass_kg_per_m": "kg/m",
            "measuring_force_n": "measuring force, N",
            "common": "how common",
            "confidence_plates": "how sure of plates",
        },
    ),
    "flat_belts": _Entry(
        "Flat belts",
        "Belts",
        _lengths("thickness_mm", "smallest_pulley_mm", unit="mm"),
        {"thickness_mm": "thickness", "smallest_pulley_mm": "smallest pulley", "friction": "friction on iron", "density_kg_m3": "kg/m³"},
    ),
    "flat_crowns": _Entry(
        "Crown of flat pulleys",
        "Wheels",
        _lengths("diameter", *(f"face_{f}" for f in ("to_125", "to_160", "to_200", "to_250", "to_315", "to_355", "over_355")), unit="mm"),
        {f"face_to_{f}": f"face to {f} mm" for f in (125, 160, 200, 250, 315, 355)} | {"face_over_355": "face over 355 mm"},
    ),
    "flat_faces": _Entry("Face of flat pulleys", "Wheels", _lengths("belt_width", "face", unit="mm"), {}),
    "toothed_pulleys": _Entry(
        "Toothed pulleys as made",
        "Wheels",
        _lengths("outside_diameter", unit="mm"),
        {"pitch_name": "pitch", "confidence_outside": "how sure of the diameter"},
    ),
    "v_grooves": _Entry(
        "Sheave grooves",
        "Wheels",
        _lengths("diameter_over", "diameter_to_incl", "reference_width", "top_width", "depth_min", "outside_minus_line", "spacing", "edge"),
        {"outside_minus_line": "outside less belt line", "spacing": "groove to groove", "edge": "centre to edge"},
    ),
    "v_ride_height": _Entry(
        "Ride height, two schools",
        "Wheels",
        _lengths("low_in", "high_in", unit="in"),
        {"low_in": "lowest (sunk)", "high_in": "highest (proud)"},
    ),
    "v_sheaves": _Entry("Sheaves as made", "Wheels", _lengths("diameter", "outside_diameter"), {"diameter": "datum or pitch diameter"}),
    "v_sheaves_adjustable": _Entry(
        "Adjustable sheaves", "Wheels", _lengths("outside_diameter", "pitch_diameter_open", "pitch_diameter_closed"), {}
    ),
    "bushings": _Entry(
        "Bushings",
        "Wheels",
        _lengths("large_end", "flange", "bolt_circle", "max_bore", "length") | {"torque": ("torque", "torque_unit")},
        {"large_end": "taper, large end", "inch_sheet_lbf_in": "inch sheets, lbf in"},
    ),
    "screw_torques": _Entry("Screws and bolts", "Wheels", {"torque": ("torque", "torque_unit")}, {}),
    "chain_oil_grades": _Entry("Oil for chains", "Belts", {}, {"over_f": "over, °F", "to_f": "to, °F"}),
    "keeper_gaps": _Entry("Keeper gaps", "Wheels", _lengths("low_in", "high_in", unit="in"), {"low_in": "from", "high_in": "to"}),
    "guard_openings": _Entry(
        "Guard openings",
        "Wheels",
        _lengths("from_in", "to_in", "opening_in", unit="in"),
        {"from_in": "distance to the nip, from", "to_in": "to", "opening_in": "largest opening"},
    ),
    "keys": _Entry("Shaft keys", "Wheels", _lengths("shaft_from", "shaft_to"), {}),
    "ip22_power": _Entry("Rating, narrow: coefficients", "Rating", {}, {}),
    "ip22_speed_ratio_factor": _Entry("Rating, narrow: speed-ratio factor", "Rating", {}, {}),
    "ip22_length_factor": _Entry("Rating, narrow: length factor", "Rating", {}, {}),
    "ip23_power": _Entry("Rating, light duty: coefficients", "Rating", {}, {}),
    "metric_v_power": _Entry("Rating, metric: fitted coefficients", "Rating", {}, {}),
    "metric_v_speed_ratio_factor": _Entry("Rating, metric: ratio factor", "Rating", {}, {}),
    "metric_v_length_factor": _Entry("Rating, metric: length factor", "Rating", {}, {}),
    "v_rated_as": _Entry("Rating: sections counted as others", "Rating", {}, {"rated_as": "rated as"}),
    "toothed_rating": _Entry(
        "Rating, toothed belts",
        "Rating",
        {},
        {
            "base_width_mm": "base width, mm",
            "pull_n": "allowable pull, N",
            "mass_kg_m": "kg/m at base width",
            "mass_per_mm": "kg/m per mm of width",
        },
    ),
    "chain_rating": _Entry("Rating, roller chain: constants", "Rating", {}, {"kr": "K_r", "last_rpm": "table's last rpm"}),
    "chain_strands": _Entry("Rating, roller chain: strands", "Rating", {}, {}),
    "flat_pull": _Entry("Rating, flat belts: tension allowed", "Rating", {}, {"pull_n_per_mm": "N per mm of width", "kind": "of what"}),
    "flat_pulley_factor": _Entry(
        "Rating, flat belts: pulley factor", "Rating", {}, {f"from_{d}": f"from {d} in" for d in ("1.6", "4.5", "9", "14", "18", "31.5")}
    ),
    "sprockets_stock": _Entry("Sprockets as commonly stocked", "Wheels", {}, {}),
    "wheel_materials": _Entry("Rim speed by material", "Wheels", {"rim_limit": ("velocity", "ft/min")}, {"rim_limit": "rim to"}),
    "ip20_power": _Entry("Rating: coefficients", "Rating", {}, {}),
    "ip20_speed_ratio_factor": _Entry("Rating: speed-ratio factor", "Rating", {}, {}),
    "ip20_length_factor": _Entry("Rating: length factor", "Rating", {}, {}),
    "ip20_service_factor": _Entry("Service factors", "Rating", {}, {}),
    "service_factor_other": _Entry("Service factors, other families", "Rating", {}, {}),
    "heat_limits": _Entry("How warm it may be", "Rating", {}, {"most_c": "air at most, °C"}),
    "shock_factors": _Entry("Torque in a jolt, by class", "Rating", {}, {"driven_class": "driven machine", "k": "times working torque"}),
    "tension_bands": _Entry(
        "Tension: what to set, of the target", "Tension", {}, {"seat": "held by", "new_low": "new, lowest", "new_high": "new, highest"}
    ),
    "tension_thumb_rules": _Entry(
        "Tension: rules of thumb", "Tension", {}, {"given_in": "given in", "push_lbf": "push taken, lbf", "factor": "times or over"}
    ),
    "settling": _Entry("Tension: how it settles", "Tension", {}, {"s": "fall a decade", "band": "give or take"}),
    "align_tolerances": _Entry(
        "How true wheels should run",
        "Alignment",
        {},
        {"angle_deg": "angle and twist each °", "offset_mm_per_m": "offset, mm per m", "least_mm": "or at least, mm"},
    ),
    "belt_stretch": _Entry("Stretch of flat belts when set", "Tension", {}, {}),
    "v_bending": _Entry("Stiffness in bending", "Tension", {}, {"ei_n_m2": "EI, N m²", "cogged_share": "cogged keeps"}),
    "v_flat_arc": _Entry("V-flat: arc factor", "Rating", {}, {"theta_deg": "wrap °", "k": "arc factor"}),
    "ribbed_rated_as": _Entry("Rating: ribs counted as V-belts", "Rating", {}, {"like": "counted as"}),
    "ribbed_stock": _Entry(
        "Ribbed belts and pulleys, assumed", "Belts", {}, {"wheels": "outside diameters, mm", "lengths": "effective lengths, mm"}
    ),
    "drive_traits": _Entry(
        "What each kind of drive stands",
        "Rating",
        {},
        {
            "kept": "efficiency, well kept",
            "neglected": "efficiency, let go",
            "no_oil": "without oil",
            "out_of_line": "out of line",
            "fuse": "slips first",
        },
    ),
    "nema_motor_sheaves": _Entry(
        "Smallest sheaves on NEMA frames",
        "Wheels",
        _lengths("classical_min", "classical_max_width", "narrow_min", "narrow_max_width", unit="in"),
        {},
    ),
    "motor_sheave_by_power": _Entry(
        "Smallest sheaves by motor power", "Wheels", _lengths("least", unit="in"), {"least": "smallest sheave"}
    ),
    "motor_frames": _Entry("Motor shafts by frame", "Wheels", _lengths("shaft", "length"), {"length": "usable length"}),
    "chain_oiling": _Entry(
        "How to oil a chain, by its speed",
        "Rating",
        {"by_hand_to": ("velocity", "ft/min"), "bath_to": ("velocity", "ft/min")},
        {"by_hand_to": "by hand or drip to", "bath_to": "in a bath to"},
    ),
}
_HIDDEN = {"unit", "source", "confidence", "torque_unit", "nearly_fits"}


@cache
def table(name: str) -> Table:
    """One table of the book. Raises KeyError for an unknown name."""
    entry = BOOK[name]
    raw = rows(name)
    keys = [c for c in raw[0] if c not in _HIDDEN]
    columns = [_column(c, entry, raw) for c in keys]
    body = [tuple(_cell(r, c, entry) for c in keys) for r in raw]
    if name == "v_belt_lengths":
        columns += [Column(k, k.replace("_", " "), "in", "mm", True) for k in ("inside", "datum", "outside")]
        body = [cells + _conventions(r) for cells, r in zip(body, raw, strict=True)]
    return Table(
        name,
        entry.title,
        entry.group,
        _notes(name, columns),
        tuple(columns),
        tuple(body),
        tuple(r["source"] for r in raw),
        tuple(r["confidence"] for r in raw),
    )


def _notes(name: str, columns: list[Column]) -> tuple[str, ...]:
    """The notes on top of the file, its columns called by their headings."""
    words = {c.key: c.label for c in sorted(columns, key=lambda c: -len(c.key)) if c.key != c.label}
    lines = about(name)
    for key, label in words.items():
        lines = tuple(re.sub(rf"(?<!\w){re.escape(key)}(?!\w)", f"“{label}”", line) for line in lines)
    return lines


def _column(key: str, entry: _Entry, raw: tuple[dict[str, str], ...]) -> Column:
    label = entry.labels.get(key, key.removesuffix("_deg").removesuffix("_in").replace("_", " "))
    kind = entry.kinds.get(key)
    us, si = _UNITS[kind[0]] if kind else ("°", "°") if key.endswith("_deg") else ("", "")
    return Column(key, label, us, si, all(_is_number(r[key]) for r in raw if r[key]))


def _is_number(text: str) -> bool:
    try:
        float(text)
    except ValueError:
        return False
    return True


def _cell(row: dict[str, str], key: str, entry: _Entry) -> Cell:
    text, kind = row[key], entry.kinds.get(key)
    if not kind or not text or not _is_number(text):
        return Cell(text, text)
    in_inches = (kind[1] or row.get("unit", "in")) == "in" if kind[0] != "torque" else row["torque_unit"].startswith("lbf")
    value = float(text)
    if in_inches:
        return Cell(text, _round(value * _factor(kind[0]), kind[0] == "length"))
    return Cell(_round(value / _factor(kind[0]), False), text)


def _factor(kind: str) -> float:
    """SI figure for one US figure, in the units of the columns."""
    if kind == "length":
        return to_si(1.0, "length", "in") * 1000
    if kind == "mass":
        return _LB_PER_FT
    if kind == "torque":
        return _LBF_FT
    return to_si(1.0, kind, _UNITS[kind][0])


def _round(value: float, millimetres: bool) -> str:
    if value == 0:
        return "0"
    digits = 1 if millimetres and abs(value) >= 100 else 2 if abs(value) >= 10 else 3
    return f"{value:.{digits}f}".rstrip("0").rstrip(".")


def _conventions(row: dict[str, str]) -> tuple[Cell, ...]:
    named = lengths(section(row["section"]), float(row["number"]))
    return tuple(
        Cell(_round(from_si(v, "length", "in"), True), _round(v * 1000, True)) for v in (named.inside_m, named.datum_m, named.outside_m)
    )
