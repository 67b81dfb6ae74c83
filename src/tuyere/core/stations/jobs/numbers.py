"""The numbers that stand with steps: those that come of what was asked before the job, and those said of every drive."""

from collections.abc import Collection, Mapping
from math import pi, sqrt

from tuyere.core.basis.figure import shown
from tuyere.core.basis.keeper import keeper_gap
from tuyere.core.basis.limit import limit
from tuyere.core.basis.number import Number, length, said
from tuyere.core.basis.quantity import QuantityError, parse, to_si
from tuyere.core.basis.table import rows

OIL_DROPS = "2 or 3 drops, twice a year"  # common practice, no source
PEAK_IN_S = 2**0.5 / 25.4  # mm/s rms as in/s peak, of a sine
THUMB_M = 0.0254  # tables/tension_thumb_rules.csv: one inch of give
LEAST_GREASE_H = 100.0  # below it the form does not hold: grease it by its own label
SQUARE_M_PER_M = 0.005  # out of square at most: common practice, from memory, low


def bushing(name: str) -> Number | None:
    """Screws and torque of a bushing by its name. Source: each row's own (from memory).

    >>> bushing("SK").us, bushing("SK").si
    ('15.0 lbf ft', '20.3 N m')
    """
    row = next((r for r in rows("bushings") if r["bushing"] == name), None)
    if row is None:
        return None
    us, si = shown(to_si(float(row["torque"]), "torque", row["torque_unit"]), "torque")
    oiled = "screws lightly oiled" if row["kind"].startswith("taper") else "screws dry"
    other = f"; the inch sheets say {row['inch_sheet_lbf_in']} lbf in" if row["inch_sheet_lbf_in"] else ""
    return Number(
        f"Bushing {name}",
        us,
        si,
        f"{row['screws']}, bore and taper dry, {oiled}, in turn{other}",
        source=f"{row['source']} ({row['confidence']})",
    )


def screw(name: str) -> Number | None:
    """Torque of a hub screw or bolt by its size. Source: each row's own (from memory).

    >>> screw("1/4-20 set screw").us
    '7.0 lbf ft'
    """
    row = next((r for r in rows("screw_torques") if r["screw"] == name), None)
    if row is None:
        return None
    us, si = shown(to_si(float(row["torque"]), "torque", row["torque_unit"]), "torque")
    return Number(
        f"{row['screw']}".capitalize(), us, si, "dry; the maker's own sheet goes before", source=f"{row['source']} ({row['confidence']})"
    )


def base_torque() -> Number:
    """The torque of a base's bolts: the usual sizes, from the table of screws."""
    shown_for = [n for name in ("1/2-13 bolt", "M12 bolt") if (n := screw(name))]
    usual = ", ".join(f"{n.label}: {n.us} ({n.si})" for n in shown_for)
    return said("Torque", "by the bolt's size", f"{usual}; Bench, Tables has the others", source=shown_for[0].source)


def keeper_number(facts: Collection[str]) -> Number:
    """How near a keeper stands to the tight belt, by what the machine is.

    >>> keeper_number({"mower"}).us, keeper_number({"pto"}).us
    ('1/16 to 1/8 in', '1/8 to 1/4 in')
    """
    gap = keeper_gap("mower" if "mower" in facts else "farm" if {"pto", "engine"} & set(facts) else "other")
    return Number("Gap to the tight belt", *gap.text, "the machine's manual goes before", "survey", gap.source)


def guard_opening(distance_m: float) -> tuple[float, str]:
    """The largest opening (m) of a guard so far from the nip, and its source.

    Source: OSHA 29 CFR 1910.217 Table O-10 (from memory, medium).

    >>> round(guard_opening(0.1)[0] / 0.0254, 3), round(guard_opening(2.0)[0] / 0.0254, 3)
    (0.625, 2.125)
    """
    for r in rows("guard_openings"):
        low, high, most = (q.value_si for k in ("from_in", "to_in", "opening_in") if (q := parse(r[k], "length", "in")))
        if low <= distance_m <= high:
            return most, r["source"]
    at = limit("guard gap beyond the table")
    return (to_si(at.value, "length", "in"), at.source) if distance_m > 0.5 else (0.0, at.source)


def guard_number() -> Number:
    """The largest openings of a guard near its nip, from the table."""
    first, *more = rows("guard_openings")
    rest = ", ".join(f"{r['opening_in']} in to {r['to_in']}" for r in more[:4])
    near = f"{first['opening_in']} in at {first['from_in']} to {first['to_in']} in from the nip"
    return said("Largest opening", near, f"{rest}; Bench, Tables has the rest", source=first["source"])


def oil_grades() -> Number:
    """Which oil for a chain, by ambient temperature.

    >>> oil_grades().us
    'SAE 20 to 40 °F, SAE 30 to 100 °F, SAE 40 to 120 °F, SAE 50 to 140 °F'
    """
    every = rows("chain_oil_grades")
    us = ", ".join(f"{r['grade']} to {r['to_f']} °F" for r in every)
    si = ", ".join(f"{r['grade']} to {(float(r['to_f']) - 32) / 1.8:.0f} °C" for r in every)
    return Number("Grade by ambient temperature", us, si, "petroleum oil, non-detergent", source=f"{every[0]['source']} (from memory)")


def grease_g(outer_m: float, width_m: float) -> float:
    """Grease to add to a bearing (g): G = 0.005 D B with D and B in mm. Source: bearing handbooks (from memory, medium).

    >>> round(grease_g(0.090, 0.023), 1)
    10.3
    """
    return 0.005 * (outer_m * 1000) * (width_m * 1000)


def grease_hours(bore_m: float, speed_rad_s: float) -> float:
    """Running hours between two greasings of a ball bearing: t = 14e6 / (n sqrt(d)) - 4 d, n in rpm, d the bore in mm; clean, under 70 C.

    Source: bearing handbooks (from memory, medium). Valid while it comes out above 100 h; dirt, damp or a shaft that stands upright halve
    it.

    >>> from math import pi
    >>> round(grease_hours(0.050, 1000 * 2 * pi / 60), -1)
    1780.0
    """
    rpm, bore = speed_rad_s * 30 / pi, bore_m * 1000
    return 14e6 / (rpm * sqrt(bore)) - 4 * bore


def asked_numbers(asked: Mapping[str, str], facts: Collection[str]) -> dict[str, Number]:
    """What is told of every drive, and what comes of the answers given before the job."""
    ride = "ride-on" in asked.get("which", "")
    stop = limit(f"blade stop of a {'ride-on' if ride else 'walk-behind'}")
    found = {
        "oil_drops": said("In each port", OIL_DROPS, "light oil, non-detergent", source="common practice, no source"),
        "turns_step": said("Step", "half a turn", "two flats, 180 degrees apart"),
        "manual_torque": said("Torque", "by the manual", "of the machine: none is guessed here"),
        "base_torque": base_torque(),
        "blade_stop": said(
            "Blades stand within",
            f"{stop.value:g} s",
            "a ride-on's within 5 s, a walk-behind's within 3 s; the manual goes before",
            source=stop.source,
        ),
        "thumb_inch": length("Give at mid-span, about", THUMB_M, "by a light finger; a rule of thumb for small blowers"),
        "offset_share": said(
            "It then carries",
            f"{limit('offset section of two pitches').value:.0%}",
            f"of the chain's rating; a one-pitch offset link {limit('offset link').value:.0%}",
            source=limit("offset section of two pitches").source,
        ),
        "bore_fit": said(
            "Bore on shaft",
            "slides on by hand, no rock",
            "H7 on h6 with a key and set screws; H7 on k6 is pressed; under a bushing a shaft may be 0.002 in (0.05 mm) small",
            source="ISO 286; AGMA 9002 (from memory)",
        ),
        "guard_gap": guard_number(),
        "belt_age": said(
            "On the shelf at most",
            f"{limit('belt shelf life').value:g} years",
            "from the date on it",
            source=limit("belt shelf life").source,
        ),
        "leg_slip": said(
            "It must stop at", f"{1 - limit('slip of a leg').value:.0%} of its speed", "", source=limit("slip of a leg").source
        ),
        "vibration": said(
            "Vibration, rms",
            f"{limit('vibration when new').value:g} mm/s when new, {limit('vibration to alarm').value:g} mm/s: find out why",
            f"{limit('vibration when new').value * PEAK_IN_S:.2f} and {limit('vibration to alarm').value * PEAK_IN_S:.2f} in/s peak",
            source=limit("vibration to alarm").source,
        ),
        "oil_grade": oil_grades(),
    }
    if number := bushing(asked.get("bushing", "")):
        found["bushing_torque"] = number
    elif asked.get("bushing"):
        found["bushing_torque"] = said(
            "Torque", "by the bushing's own sheet", "read its number when it is off; Bench, Tables has the usual ones"
        )
    if number := screw(asked.get("screw", "")):
        found["screw_torque"] = number
    if asked.get("thread"):
        left = asked["thread"].startswith("left")
        found["thread"] = said("Thread", asked["thread"], "loosens " + ("clockwise" if left else "anti-clockwise"))
    if number := grease(asked):
        found["grease_amount"] = number
    return found


def grease_again(asked: Mapping[str, str], speed_rad_s: float | None) -> Number | None:
    """After how many running hours the bearing is greased again, by its bore and speed."""
    try:
        bore = parse(asked.get("bore", ""), "length", "in")
    except QuantityError:
        return None
    if bore is None or not speed_rad_s or (hours := grease_hours(bore.value_si, speed_rad_s)) < LEAST_GREASE_H:
        return None
    return said(
        "Again after",
        f"{round(hours, -2):.0f} h of running",
        "a ball bearing, clean and under 70 °C (160 °F); half of it in dirt, damp or upright",
        "speed",
        "bearing handbooks (from memory, medium)",
    )


def grease(asked: Mapping[str, str]) -> Number | None:
    """How much grease a bearing takes, by its outside diameter and width."""
    try:
        outer, width = (parse(asked.get(k, ""), "length", "in") for k in ("outer", "wide"))
    except QuantityError:
        return None  # refused beside its field when the job is begun
    if outer is None or width is None:
        return None
    grams = grease_g(outer.value_si, width.value_si)
    return Number(
        "Grease to add",
        f"{grams / 28.35:.2f} oz",
        f"{grams:.0f} g",
        "0.005 D B in mm; a hand gun gives about 1 g a stroke: weigh ten",
        source="bearing handbooks (from memory, medium)",
    )
