"""The fields a person fills in: kind, units, plausible and possible range, and how each is called."""

from dataclasses import dataclass

from tuyere.core.basis.origin import Origin
from tuyere.core.basis.quantity import KINDS, Parsed, QuantityError, System, fraction_inches, from_si, parse, show, to_si
from tuyere.core.basis.verdict import Offer


@dataclass(frozen=True)
class Field:
    """One quantity field. Ranges are in the kind's US unit: plausible = seen every week, possible = at all."""

    key: str
    label: str
    kind: str
    plausible: tuple[float, float]
    possible: tuple[float, float]
    origin: Origin
    refusal: str

    @property
    def signed(self) -> bool:
        """Whether it may lie below zero."""
        return self.possible[0] < 0

    def bounds_si(self) -> tuple[float, float]:
        """What is possible at all, SI."""
        symbol = KINDS[self.kind].us_symbol
        return to_si(self.possible[0], self.kind, symbol), to_si(self.possible[1], self.kind, symbol)

    def is_plausible(self, value_si: float) -> bool:
        """Whether a value (SI) lies where such a thing usually does."""
        value = from_si(value_si, self.kind, KINDS[self.kind].us_symbol)
        return self.plausible[0] <= value <= self.plausible[1]


M, N, C = Origin.MEASURED, Origin.NAMEPLATE, Origin.CHOSEN

FIELDS: dict[str, Field] = {
    f.key: f
    for f in (
        Field("driver_power", "driver power", "power", (0.1, 300), (0.01, 3000), N,
              "Driver power lies between 0.01 and 3000 hp here: read it from the motor's plate."),
        Field("driver_speed", "driver speed", "rotation", (200, 4000), (0.1, 20000), N,
              "A driver here turns between 0.1 and 20 000 rpm: read it from the motor's plate, usually 860 to 3550."),
        Field("hours_per_day", "hours a day", "duration", (0.5, 24), (0.1, 24), C,
              "A day has up to 24 hours: write the hours the machine runs, such as 10."),
        Field("driver_diameter", "driver sheave diameter", "length", (1.5, 40), (0.75, 120), M,
              "A sheave here is 3/4 to 120 in across: measure over the outside of the rim."),
        Field("driven_diameter", "driven sheave diameter", "length", (1.5, 60), (0.75, 120), M,
              "A sheave here is 3/4 to 120 in across: measure over the outside of the rim."),
        Field("centre_distance", "centre distance", "length", (5, 150), (1, 600), M,
              "Centres here are 1 to 600 in apart: measure from shaft centre to shaft centre."),
        Field("travel_in", "motor can move closer by", "length", (0, 12), (0, 60), M,
              "Write how far the motor can still slide towards the driven sheave: 0 to 60 in."),
        Field("travel_out", "motor can move away by", "length", (0, 12), (0, 60), M,
              "Write how far the motor can still slide away from the driven sheave: 0 to 60 in."),
        Field("design_speed", "driven speed it should have", "rotation", (20, 6000), (0.1, 20000), N,
              "A driven speed lies between 0.1 and 20 000 rpm: see the machine's manual."),
        Field("design_airflow", "airflow it should have", "airflow", (50, 200000), (1, 2000000), N,
              "Write an airflow between 1 and 2 000 000 cfm."),
        Field("design_pressure", "pressure it should have", "pressure", (0.05, 60), (0.001, 5000), N,
              "Write a pressure such as 2.5 inH2O or 600 Pa."),
        Field("design_amps", "full-load amps", "current", (0.3, 400), (0.05, 5000), N,
              "Full-load amps are on the motor's plate: 0.05 to 5000 A."),
        Field("design_turns", "turns open", "turns", (0, 6), (0, 20), C,
              "Write the turns an adjustable sheave is open, such as 2 1/2."),
        Field("open_turns", "turns open now", "turns", (0, 6), (0, 20), M,
              "Write the turns the flange is screwed out from closed, such as 2 1/2."),
        Field("most_turns", "most turns open", "turns", (3, 7), (1, 20), N,
              "Write how many turns it opens at most: 5 or 6 on most light-duty sheaves."),
        Field("turn_drop", "pitch diameter lost a turn", "length", (0.05, 0.5), (0.01, 2), N,
              "An adjustable sheave loses about 0.2 in of pitch diameter a turn."),
        Field("tach_driver", "driver speed by tachometer", "rotation", (200, 4000), (0.1, 20000), M,
              "A shaft here turns between 0.1 and 20 000 rpm: read the tachometer again."),
        Field("tach_driven", "driven speed by tachometer", "rotation", (20, 6000), (0.1, 20000), M,
              "A shaft here turns between 0.1 and 20 000 rpm: read the tachometer again."),
        Field("deflection", "deflection used", "length", (0.05, 3), (0.01, 12), C,
              "Deflection is the distance the belt was pushed at mid-span: 1/64 in for each inch of span."),
        Field("force", "gauge force", "force", (0.5, 100), (0.05, 1000), M,
              "A belt gauge reads between 0.05 and 1000 lbf: read the force ring again."),
        # Which belt is this: the belt in hand, and the wheel.
        Field("top_width", "top width", "length", (0.2, 3), (0.05, 6), M,
              "A V-belt is 1/16 to 6 in wide on top: measure across the widest part of its back."),
        Field("thickness", "thickness", "length", (0.1, 1.3), (0.03, 3), M,
              "A V-belt is 1/32 to 3 in thick: measure from its back to its narrow face."),
        Field("belt_angle", "angle between the sides", "angle", (24, 66), (10, 90), M,
              "The sides of a V-belt stand 10 to 90 degrees apart, nearly always about 40: lay a template on."),
        Field("outside_length", "length over the back", "length", (10, 400), (4, 1200), M,
              "A belt is 4 in to 100 ft round the outside: lay the tape over its back."),
        Field("inside_length", "inside length", "length", (10, 400), (3, 1200), M,
              "A belt is 3 in to 100 ft round the inside: lay the tape inside it, or round two nails."),
        Field("laid_out_length", "length laid out flat", "length", (10, 400), (4, 1200), M,
              "Lay the broken belt out straight and tape it from end to end: 4 in to 100 ft."),
        Field("groove_width", "groove top width", "length", (0.2, 3), (0.05, 6), M,
              "A groove is 1/16 to 6 in wide at the rim: measure across it with callipers."),
        Field("groove_angle", "groove angle", "angle", (30, 42), (15, 90), M,
              "A groove's sides stand 15 to 90 degrees apart, nearly always 34 to 42: use a groove gauge."),
        Field("groove_depth", "groove depth", "length", (0.15, 1.6), (0.03, 4), M,
              "A groove is 1/32 to 4 in deep: measure from the rim to its bottom."),
        Field("groove_spacing", "groove to groove", "length", (0.3, 2), (0.03, 5), M,
              "Grooves lie 1/32 to 5 in apart: measure from one groove's edge to the same edge of the next."),
        Field("wheel_diameter", "wheel outside diameter", "length", (1.5, 60), (0.75, 120), M,
              "A sheave here is 3/4 to 120 in across: measure over the outside of the rim."),
        Field("ride", "belt's back off the rim", "length", (0, 0.3), (0, 3), M,
              "Write how far the belt's back stands above the rim or lies below it: 0 to 3 in."),
        Field("coordinate", "place from the first wheel", "length", (0, 150), (0, 1200), M,
              "Measure from the first wheel's centre: up to 100 ft; a minus for left or below."),
        Field("wheel_power", "power taken", "power", (0.1, 300), (0, 3000), C,
              "A wheel takes between 0 and 3000 hp from the belt."),
        Field("pitch_span", "span measured", "length", (0.5, 60), (0.05, 400), M,
              "Measure over many teeth or links: 1/16 in to 30 ft."),
        Field("tooth_height", "tooth height", "length", (0.02, 0.4), (0.005, 1), M,
              "A belt's tooth stands 1/64 to 1 in high: use the callipers' depth rod."),
        Field("belt_thickness", "belt thickness", "length", (0.04, 0.65), (0.01, 2), M,
              "A toothed belt is 1/32 to 1 in thick over its teeth."),
        Field("belt_width", "belt width", "length", (0.1, 14), (0.05, 40), M,
              "A belt is 1/16 to 40 in wide: measure across its back."),
        Field("roller_diameter", "roller diameter", "length", (0.12, 2), (0.03, 5), M,
              "A chain's roller is 1/32 to 5 in across: measure between the plates."),
        Field("inner_width", "gap between inner plates", "length", (0.1, 2), (0.03, 6), M,
              "The gap between inner plates is 1/32 to 6 in: measure where the tooth goes in."),
        Field("plate_height", "plate height", "length", (0.18, 3), (0.05, 8), M,
              "A link plate is 1/16 to 8 in high."),
        Field("plate_thickness", "plate thickness", "length", (0.02, 0.5), (0.01, 2), M,
              "A link plate is 1/64 to 2 in thick."),
        Field("pin_diameter", "pin diameter", "length", (0.07, 1.2), (0.03, 4), M,
              "A pin is 1/32 to 4 in across."),
        Field("wheel_outside", "pulley over its teeth", "length", (0.4, 30), (0.2, 120), M,
              "A toothed pulley is 1/4 to 120 in across, over its teeth."),
        Field("wheel_caliper", "sprocket between tooth bottoms", "length", (0.4, 40), (0.2, 160), M,
              "Between opposite tooth bottoms a sprocket measures 1/4 to 160 in; with odd teeth, to the bottom nearest to opposite."),
        Field("flat_thickness", "belt thickness", "length", (0.03, 0.6), (0.003, 2), M,
              "A flat belt is a few thousandths to 2 in thick: measure with callipers."),
        Field("crown", "crown height", "length", (0.005, 0.25), (0, 1), M,
              "A crown stands 1/64 to 1/4 in over the pulley's edge: lay a straightedge across and feel the gap."),
        Field("point_tape", "tape to the point", "length", (0.5, 150), (0.1, 600), M,
              "Tape from the wheel's centre to the point: 1/8 in to 50 ft."),
        Field("keeper_gap", "gap to the keeper", "length", (0.03, 1), (0, 6), M,
              "A keeper stands 1/16 to 1/4 in off the tight belt; write 0 to 6 in."),
        Field("belt_tension", "standing tension of one belt", "force", (5, 600), (0.5, 10000), M,
              "Write the tension of one belt at rest: 0.5 to 10 000 lbf."),
        Field("shaft_diameter", "shaft diameter", "length", (0.375, 5), (0.1, 20), M,
              "A shaft is 1/8 to 20 in thick: callipers across it."),
        Field("drive_width", "width over the belts", "length", (0.3, 15), (0.05, 60), C,
              "Write the width there is for belts or chain: 1/16 to 60 in."),
        Field("shaft_pull", "pull on a shaft", "force", (20, 5000), (1, 200000), C,
              "Write the most that a shaft may be pulled with, by the motor's or bearing's own sheet: 1 to 200 000 lbf."),
        Field("overhang", "wheel's middle to the near bearing", "length", (0.5, 20), (0.05, 120), M,
              "Measure from the middle of the wheel's face to the middle of the near bearing: 1/16 to 120 in."),
        Field("bearing_span", "between the bearings", "length", (1, 60), (0.2, 400), M,
              "Measure from the middle of one bearing to the middle of the other: 1/4 in to 30 ft."),
        Field("bearing_rating", "bearing's dynamic rating", "force", (200, 60000), (10, 2000000), N,
              "The bearing's C, from its maker's list: 10 lbf to 2 000 000 lbf."),
        Field("bushing_length", "bushing length", "length", (0.3, 6), (0.1, 30), M,
              "A plain bushing is 1/8 to 30 in long."),
        Field("linear_mass", "mass per length", "linear mass", (0.002, 2), (0.0003, 20), N,
              "A belt weighs 0.0005 to 30 kg a metre: the machine's manual or the belt's data say, such as 0.038 kg/m."),
        Field("frequency", "hum of the span", "frequency", (8, 400), (1, 5000), M,
              "A plucked span hums at 1 to 5000 Hz: read the meter or the phone again."),
        Field("mark", "marks apart", "length", (4, 50), (0.5, 400), M,
              "Set the marks 1/2 in to 30 ft apart; the farther the better it reads."),
        Field("sag", "sag or movement", "length", (0.1, 6), (0.01, 60), M,
              "A strand sags between 1/64 in and 5 ft: measure at its middle."),
        Field("lever_arm", "arm of a lever", "length", (1, 40), (0.1, 400), M,
              "Measure from the pivot: 1/8 in to 30 ft."),
        Field("wrap_angle", "belt's wrap on the idler", "angle", (10, 180), (1, 350), M,
              "The belt wraps an idler by 1 to 350 degrees: about 20 to 120 as a rule."),
        Field("lean_angle", "off square", "angle", (0, 45), (-80, 80), M,
              "Write the angle between the belt's pull and the square to the arm: 0 to 45 degrees as a rule."),
        Field("clip_offset", "pushed in by the middle post", "length", (0.05, 1), (0.01, 4), M,
              "The middle post pushes the belt in by 1/64 to 4 in: the gauge's own sheet says."),
        Field("clip_base", "outer post to middle post", "length", (1, 8), (0.25, 40), M,
              "From an outer post to the middle one is 1/4 to 40 in: the gauge's own sheet says."),
        Field("weight", "weight", "force", (10, 5000), (0.5, 200000), N,
              "Write the weight as a force or pounds: 1/2 to 200 000 lbf."),
        Field("screw_pitch", "one turn of the screw", "length", (0.03, 0.25), (0.01, 1), M,
              "A screw moves 1/64 to 1 in a turn: measure over ten threads and divide, such as 1/13 in or 1.75 mm."),
        Field("target_speed", "driven speed wanted", "rotation", (20, 6000), (0.1, 20000), C,
              "A driven speed lies between 0.1 and 20 000 rpm: write the one it should have."),
        Field("train_speed", "shaft speed", "rotation", (20, 6000), (0.5, 50000), M,
              "A shaft turns between 1/2 and 50 000 rpm: write a speed, or a range such as 3400 to 3600."),
        Field("train_wheel", "wheel diameter", "length", (1, 60), (0.3, 240), M,
              "A wheel is 1/3 in to 20 ft across."),
        Field("amps", "motor amps", "current", (0.3, 400), (0.02, 5000), M,
              "A motor draws 0.02 to 5000 A: read the clamp meter again, one lead only."),
        Field("machine_speed", "most the machine may turn", "rotation", (20, 6000), (0.1, 30000), N,
              "Its plate or manual gives the highest speed: 1 to 30 000 rpm."),
        Field("machine_power", "power it takes now", "power", (0.1, 300), (0.01, 3000), M,
              "Power at the shaft lies between 0.01 and 3000 hp."),
        Field("machine_flow", "airflow now", "airflow", (50, 200000), (1, 2000000), M,
              "Write an airflow between 1 and 2 000 000 cfm."),
        Field("liquid_flow", "flow now", "liquid flow", (0.5, 5000), (0.01, 200000), M,
              "Write a flow such as 40 gpm or 150 L/min."),
        Field("machine_pressure", "pressure now", "pressure", (0.05, 60), (0.001, 50000), M,
              "Write a pressure such as 2.5 inH2O, 600 Pa or 40 psi."),
        Field("displacement", "volume a turn", "displacement", (0.5, 3000), (0.001, 100000), N,
              "A pump's data give its volume a turn, such as 12 in³ or 0.2 L."),
        Field("altitude", "height over the sea", "length", (0, 120000), (0, 200000), C,
              "Write the height over the sea, such as 1200 ft: up to 16 000 ft."),
        Field("noise", "noise", "number", (40, 110), (10, 150), M,
              "Write the noise in dB(A), such as 84: 10 to 150."),
        Field("bore", "bore", "length", (0.375, 6), (0.1, 15), M,
              "A bore is 1/8 to 15 in: measure the shaft or the hole."),
        Field("key_width", "key width", "length", (0.09, 1.5), (0.03, 4), M,
              "A key is 1/32 to 4 in wide: measure across the keyway."),
        Field("set_hours", "hours the set lasted", "duration", (10, 40000), (0.1, 200000), M,
              "Write how many running hours the set lasted: 0.1 to 200 000 h."),
        Field("edge_gap", "gap under the edge", "length", (0, 0.5), (0, 4), M,
              "Write the gap between edge and face: 0 where it touches, up to 4 in."),
        Field("face_place", "out (+) or in (-)", "length", (-0.5, 0.5), (-6, 6), M,
              "Write how far it stands out (+) or in (-): up to 6 in either way."),
        Field("target_height", "height of the target's marks", "length", (1, 8), (0.2, 40), M,
              "Write how far apart the marks are between which the line's tilt was read: 1/4 to 40 in."),
        Field("shaft_slope", "slope of the shaft", "slope", (-0.3, 0.3), (-6, 6), M,
              "Write the slope as the level shows it, + when the wheel's end is high: in/ft, mm/m or degrees."),
        Field("true_angle", "angle allowed", "slope", (0.01, 0.2), (0.001, 2), C,
              "Write the most angle that is allowed: in/ft, mm/m or degrees, such as 0.25 deg."),
        Field("true_offset", "offset allowed", "length", (0.01, 0.4), (0.001, 4), C,
              "Write the most offset that is allowed, such as 1/16 in or 1 mm."),
        Field("foot_arm", "place of the feet", "length", (1, 40), (0, 400), M,
              "Measure between bolt middles, square: up to 30 ft."),
        Field("foot_gap", "rise of a foot", "length", (0, 0.08), (0, 1), M,
              "Write what the dial shows as that bolt is loosened, such as 0.004 in or 0.1 mm."),
        Field("run_out", "run-out", "length", (0, 0.06), (0, 1), M,
              "Write the dial's whole swing over one turn, such as 0.008 in or 0.2 mm."),
        Field("wear_depth", "worn by", "length", (0, 0.3), (0, 4), M,
              "Write how far it is worn, such as 1/64 in or 0.4 mm: 0 to 4 in."),
        Field("wear_share", "worn by", "share", (0, 20), (0, 100), M,
              "Write how much of it is gone, in percent: 0 to 100."),
        Field("shims_now", "shims there now", "length", (0, 0.3), (0, 3), M,
              "Write the thickness of all shims under that foot: 0 to 3 in."),
        Field("face_to_groove", "face to groove's middle", "length", (-1, 4), (-20, 20), M,
              "Measure from the face inward to the middle of the groove, tooth or crown that runs; a minus where it lies outside the face."),
        Field("hub_large_end", "taper at its large end", "length", (1, 8), (0.5, 16), M,
              "A bushing's taper is 1/2 to 16 in across at its large end."),
    )
}  # fmt: skip


class OutOfRangeError(QuantityError):
    """A quantity that cannot be here; `offer` is another unit that would make it plausible."""

    def __init__(self, sentence: str, offer: Offer | None) -> None:
        super().__init__(sentence)
        self.offer = offer


@dataclass(frozen=True)
class Note:
    """What the field understood: both systems, the unit taken, and an offer of another unit when one fits better."""

    us: str
    si: str
    unit: str
    offer: Offer | None = None


def read_field(key: str, text: str, unit: str) -> tuple[Parsed | None, Note | None]:
    """Read one field. Raises QuantityError with a sentence when it cannot be read or cannot be at all."""
    spec = FIELDS[key]
    if unit not in {u.symbol for u in KINDS[spec.kind].units}:
        unit = KINDS[spec.kind].us_symbol
    parsed = parse(text, spec.kind, unit, spec.signed)
    if parsed is None:
        return None, None
    offer = _offer(spec, parsed)
    low, high = spec.bounds_si()
    if not low - 1e-9 * abs(low) <= parsed.value_si <= high + 1e-9 * abs(high):
        raise OutOfRangeError(spec.refusal + (" Or was it" if offer else ""), offer)
    value = parsed.value_si
    if spec.kind == "length":
        us, si = _length_both(value, 2 if spec.plausible[1] <= 0.5 else 1)
    else:
        us, si = show(value, spec.kind, System.US), show(value, spec.kind, System.SI)
    return parsed, Note(us, si, parsed.unit, offer)


def _length_both(value_si: float, decimals: int) -> tuple[str, str]:
    """Inches to the third decimal and as the nearest 1/64, so that the person sees both readings of what they typed."""
    inches = from_si(value_si, "length", "in")
    near = fraction_inches(value_si)
    exact = abs(inches * 64 - round(inches * 64)) < 1e-6
    return (f"{near} in" if exact else f"{inches:.3f} in (about {near})"), f"{value_si * 1000:.{decimals}f} mm"


_FAR = 3  # times beyond what is seen every week: a unit written out is asked about too (13 m for 13 in): a judgement


def _offer(spec: Field, parsed: Parsed) -> Offer | None:
    if spec.is_plausible(parsed.value_si) or parsed.value_si == 0:
        return None
    if parsed.unit_was_written and any(spec.is_plausible(parsed.value_si * by) for by in (_FAR, 1 / _FAR)):
        return None
    number = from_si(parsed.value_si, spec.kind, parsed.unit)
    kind = KINDS[spec.kind]
    for symbol in (kind.us_symbol, kind.si_symbol):
        if symbol != parsed.unit and spec.is_plausible(to_si(number, spec.kind, symbol)):
            return Offer(symbol, f"{number:g} {symbol}?")
    return None
