"""Rated power of any V-belt: which standard's method rates its section, and the figures by it.

IP-20 for classical inch belts, IP-22 for narrow, IP-23 for light duty, the ISO 5292 form for metric ones; a section that none of
them rates is counted as a neighbour's share, and says so (tables/v_rated_as.csv: engineering estimates).
"""

import itertools
from dataclasses import dataclass
from functools import cache
from typing import Literal

from tuyere.core.basis.numbers import Numbers
from tuyere.core.basis.origin import Confidence, least_sure
from tuyere.core.basis.quantity import from_si, to_si
from tuyere.core.basis.table import rows
from tuyere.core.kinds.rating import duties
from tuyere.core.kinds.rating.duties import OutOfRangeError
from tuyere.core.kinds.rating.own_table import OwnTable
from tuyere.core.kinds.v_belt import Belt, Section, ip20, section
from tuyere.core.kinds.v_belt import metric as metric_v
from tuyere.core.kinds.v_belt.ip20 import Coefficients, RatedPower

Standard = Literal["IP-20", "IP-22", "IP-23", "ISO 5292 form", "own table"]
_INCH_FORM = "HP = d r [K1 - K2/d - K3 (r d)² - K4 log(r d)] + K2 r (1 - 1/K_SR)"


@dataclass(frozen=True)
class RatingMethod:
    """How a section is rated: the standard, the section its figures are of, the share of them that counts, and what the working says.

    `likeness`: how many times larger and slower the wheel of the rated section is taken, where a ribbed belt is a small likeness of it.
    """

    standard: Standard
    rated_as: Section
    share: float
    estimate: str
    source: str
    formula: str
    constants: tuple[tuple[str, str], ...]
    limits: str
    note: str
    confidence: Confidence
    own: OwnTable | None = None
    likeness: float = 1.0

    @property
    def ratio_steps(self) -> tuple[tuple[float, float], ...]:
        """The stepped table of its speed-ratio factor; empty where it counts no ratio."""
        if self.standard == "IP-20":
            return ip20.ratio_steps()
        if self.standard == "IP-22":
            return _narrow_steps()
        return metric_v.ratio_steps(self.rated_as.series) if self.standard == "ISO 5292 form" else ()


@cache
def _narrow_steps() -> tuple[tuple[float, float], ...]:
    return tuple((float(r["ratio_from"]), float(r["K_SR"])) for r in rows("ip22_speed_ratio_factor"))


@cache
def _narrow() -> dict[str, Coefficients]:
    def read(r: dict[str, str]) -> Coefficients:
        return Coefficients(float(r["K1"]), float(r["K2"]), float(r["K3"]), float(r["K4"]), Confidence(r["confidence"]))

    return {r["section"]: read(r) for r in rows("ip22_power")}


def method(of: Section, own: OwnTable | None = None) -> RatingMethod:
    """The method that rates a section, or the shop's own table of it. Raises OutOfRangeError with a sentence when there is none.

    >>> method(section("5V")).standard, method(section("SPA")).standard, method(section("XPB")).rated_as.name
    ('IP-22', 'ISO 5292 form', 'SPB')
    """
    if own:
        return RatingMethod(
            "own table",
            of,
            1.0,
            "",
            own.says,
            "read from your table, straight between its figures",
            (),
            f"{own.reach}; at 180° and the reference length.",
            "Your table overrides the standard's.",
            Confidence.MEDIUM,
            own,
        )
    row = next((r for r in rows("v_rated_as") if r["section"] == of.name), None)
    if row:
        like = method(section(row["rated_as"]))
        estimate = f"Estimate: counted as {row['share'] if row['share'] != '1.0' else 'all'} of {row['rated_as']}: {row['why']}."
        return RatingMethod(
            like.standard,
            like.rated_as,
            float(row["share"]),
            estimate.replace("all of", ""),
            f"{like.source}; {row['source']}",
            like.formula,
            like.constants,
            like.limits,
            like.note,
            least_sure(like.confidence, Confidence(row["confidence"])),
        )
    if rib := next((r for r in rows("ribbed_rated_as") if r["section"] == of.name), None):
        return _as_a_likeness(of, section(rib["like"]), rib["source"])
    if of.name in {r["section"] for r in rows("ip20_power")}:
        c = ip20.coefficients(of.name)
        return RatingMethod(
            "IP-20",
            of,
            1.0,
            "",
            duties.SOURCE,
            _INCH_FORM,
            _ks(c),
            _INCH_LIMITS,
            "d is the datum diameter: which diameter the coefficients expect is not settled, and datum gives the lower, safer rating.",
            least_sure(c.confidence, Confidence.MEDIUM),
        )
    if of.name in _narrow():
        c = _narrow()[of.name]
        return RatingMethod(
            "IP-22",
            of,
            1.0,
            "",
            "ARPM/RMA-MPTA IP-22; Machinery's Handbook (from memory)",
            _INCH_FORM,
            _ks(c),
            _INCH_LIMITS,
            "d is the pitch diameter, outside less 2a.",
            c.confidence,
        )
    if light := _light(of.name):
        return RatingMethod(
            "IP-23",
            of,
            1.0,
            "",
            "ARPM/RMA-MPTA IP-23; Machinery's Handbook (from memory)",
            "HP = r [c1 d^0.91 r^-0.09 - c2 - c3 r² d³]",
            tuple((k, light[k]) for k in ("c1", "c2", "c3")),
            "d in inches, r in 1000 rpm; length and ratio are not counted.",
            "For light duty only: fractional-horsepower machines.",
            Confidence(light["confidence"]),
        )
    if (f := metric_v.fits().get(of.name)) and f.cells:
        return RatingMethod(
            "ISO 5292 form",
            of,
            1.0,
            "",
            "GB/T 13575.1 (from memory)",
            "P = P_0(d, n) + C2 n (1 - 1/K)",
            (("C2", f"{f.c2:.5g}"),),
            f"P in kW, d in mm, n in 1/min; {f.d_from_mm:g} to {f.d_to_mm:g} mm, to {f.n_to:g} 1/min.",
            "P_0 is read straight between the cells of the printed table, which is too uneven for one formula.",
            f.confidence,
        )
    if f:
        return RatingMethod(
            "ISO 5292 form",
            of,
            1.0,
            "",
            metric_v.SOURCE,
            "P = d n [C1 - C2/d - C3 (d n)² (1 + δ/d) - C4 log(d n)] + C2 n (1 - 1/K)",
            (("C1", f"{f.c1:.5g}"), ("C2", f"{f.c2:.5g}"), ("C3", f"{f.c3:.5g}"), ("C4", f"{f.c4:.5g}"), ("δ", f"{f.delta_mm:g} mm")),
            f"P in kW, d in mm, n in 1/min; fitted for {f.d_from_mm:g} to {f.d_to_mm:g} mm, to {f.n_to:g} 1/min.",
            f"A fit to the printed table, within {f.misfit_kw:g} kW of its cells.",
            f.confidence,
        )
    raise OutOfRangeError(
        f"No power rating for section {of.name} is known here. Speeds, lengths and wraps are right; for the rating ask the belt's supplier."
    )


def _as_a_likeness(rib: Section, like: Section, source: str) -> RatingMethod:
    """A rib counted as the V-belt it is a small likeness of: tables/ribbed_rated_as.csv has the reasoning."""
    whole, times = method(like), like.height_m / rib.height_m
    share = rib.top_width_m / like.top_width_m / times
    estimate = (
        f"Estimate: each rib as {share:.3f} of a section {like.name} belt on a wheel {times:.2f} times as large and as slow, its likeness "
        "in cord and bend. "
        "Real belts are usually rated 1.5 to 2 times higher; their maker's table decides."
    )
    return RatingMethod(
        whole.standard,
        like,
        share,
        estimate,
        f"{whole.source}; {source}",
        whole.formula,
        whole.constants,
        whole.limits,
        whole.note,
        Confidence.LOW,
        None,
        times,
    )


_INCH_LIMITS = "d in inches, r in 1000 rpm, HP in hp; to 6500 ft/min; at 180° and the reference length."


def _ks(c: Coefficients) -> tuple[tuple[str, str], ...]:
    return tuple((f"K{i}", f"{k:g}") for i, k in enumerate((c.k1, c.k2, c.k3, c.k4), 1))


def _light(name: str) -> dict[str, str] | None:
    return next((r for r in rows("ip23_power") if r["section"] == name), None)


def rated(of: Section) -> bool:
    """Whether any method rates the section."""
    try:
        method(of)
    except OutOfRangeError:
        return False
    return True


def rated_power(
    of: Section, small_line_diameter_m: float, fast_shaft_rad_per_s: float, ratio: float, own: OwnTable | None = None
) -> RatedPower:
    """Rated power of one belt at 180 degrees and the reference length, W, by the section's method or the shop's own table.

    small_line_diameter_m: of the belt's line (datum or pitch) on the small wheel; ratio: larger over smaller diameter. Raises
    OutOfRangeError past the method's speed limits.

    >>> p = rated_power(section("5V"), to_si(12.4, "length", "in"), to_si(1160, "rotation", "rpm"), 1.72)
    >>> round(from_si(p.basic_w, "power", "hp"), 1), round(from_si(p.added_for_ratio_w, "power", "hp"), 2)
    (26.4, 1.15)
    """
    how = method(of, own)
    found = _by(how, small_line_diameter_m * how.likeness, fast_shaft_rad_per_s / how.likeness, ratio)
    return RatedPower(found.basic_w * how.share, found.added_for_ratio_w * how.share, how.confidence)


def _by(how: RatingMethod, diameter_m: float, speed: float, ratio: float) -> RatedPower:
    of = how.rated_as
    if how.own:
        return RatedPower(how.own.rated(diameter_m, speed, ratio), 0.0, how.confidence)
    if how.standard == "ISO 5292 form":
        return metric_v.rated_power(of, diameter_m, speed, ratio)
    if how.standard == "IP-20":
        return ip20.rated_power(of, diameter_m, speed, ratio)
    d, r = from_si(diameter_m, "length", "in"), from_si(speed, "rotation", "rpm") / 1000
    if diameter_m * speed / 2 > of.max_speed_m_per_s * 1.0001:
        limit = from_si(of.max_speed_m_per_s, "velocity", "ft/min")
        raise OutOfRangeError(f"The belt runs faster than {limit:.0f} ft/min: the rating does not reach that far.")
    basic, added = (float(hp) for hp in inch_horsepower(how, d, r, speed_ratio_factor(how, ratio)))
    return RatedPower(to_si(basic, "power", "hp"), to_si(added, "power", "hp"), how.confidence)


def inch_horsepower(how: RatingMethod, d_in: Numbers, r_thousand_rpm: Numbers, k_sr: Numbers) -> tuple[Numbers, Numbers]:
    """The equation of an inch method in its own units, for one or many: basic hp and the hp that the ratio adds."""
    of, d, r = how.rated_as, d_in, r_thousand_rpm
    if how.standard == "IP-23":
        c = _light(of.name)
        assert c
        return r * (float(c["c1"]) * d**0.91 * r**-0.09 - float(c["c2"]) - float(c["c3"]) * r**2 * d**3), 0.0 * r
    return ip20.horsepower(ip20.coefficients(of.name) if how.standard == "IP-20" else _narrow()[of.name], d, r, k_sr)


def speed_ratio_factor(how: RatingMethod, ratio: float) -> float:
    """K_SR by the method; 1 where it does not count the ratio."""
    return ip20.at_step(how.ratio_steps, ratio)


def length_factor(belt: Belt, own: OwnTable | None = None) -> float:
    """K_L by the section's method; 1 for light duty, for ribbed belts, and for a section that only the shop's own table rates.

    Raises OutOfRangeError outside its table.
    """
    if own and not rated(belt.section):
        return 1.0
    how = method(belt.section)
    if how.likeness != 1.0:
        return 1.0
    if how.standard == "IP-20":
        return ip20.length_factor(belt) if belt.section.groove == how.rated_as.groove else 1.0
    if how.standard == "ISO 5292 form":
        return metric_v.length_factor(belt, how.rated_as.name)
    if how.standard == "IP-23":
        return 1.0
    number = belt.number if belt.section.series == "narrow inch" else belt.datum_length_m / 0.00254
    points = sorted((float(r["number"]), float(r["K_L"])) for r in rows("ip22_length_factor") if r["groove"] == how.rated_as.groove)
    if not points[0][0] * 0.98 <= number <= points[-1][0] * 1.02:
        raise OutOfRangeError(
            f"{belt.designation} is outside the length-factor table of {how.rated_as.groove} ({points[0][0]:g} to {points[-1][0]:g}): "
            "IP-22 gives no rating for it."
        )
    for (n0, k0), (n1, k1) in itertools.pairwise(points):
        if n0 <= number <= n1:
            return k0 + (k1 - k0) * (number - n0) / (n1 - n0)
    return points[0][1] if number < points[0][0] else points[-1][1]
