"""No belt at all: the lengths that the wheels, centres and take-up can serve, and the made belts inside them."""

from dataclasses import dataclass
from typing import Literal

from tuyere.core.basis.figure import shown
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.fitted import Slide
from tuyere.core.kinds.slide import slide_needed
from tuyere.core.kinds.v_belt import (
    Belt,
    Section,
    allowance,
    belt_of,
    counter_numbers,
    datum_from_outside,
    lengths,
    line_on_flat,
    nearest_belts,
    number_from_datum,
    standard_belts,
)
from tuyere.core.kinds.v_belt.allowance import Allowance
from tuyere.core.kinds.v_belt.length import QUARTER_INCH
from tuyere.core.kinds.v_belt.v_set import VSet
from tuyere.core.mechanics.open_belt import belt_length, centre_distance

Room = Literal["good", "little to take up", "little to fit", "tight both ways"]
_CLUTCH = QUARTER_INCH  # beyond a quarter of an inch another belt is another belt on a slack-belt clutch: common practice, no source
_CLEAR = 1 + 1e-6
_OFF_LIST = 12
_UNKNOWN_SLIDE = 0.06  # of the centres, looked at either way where nobody measured how far the motor slides


@dataclass(frozen=True)
class MadeLength:
    """A made belt in or near the window: its tight centres, how far the motor then closes to fit it and opens to take up (m).

    `slide`: how far from where it stands the motor has to slide, closer to fit the belt and away to take it up, in words. Rooms are
    empty where nobody measured how far it slides.
    """

    designation: str
    listed: bool
    centres_m: float
    centres_us: str
    centres_si: str
    outside_us: str
    outside_si: str
    fit_room_m: float
    takeup_room_m: float
    fit_room: str
    takeup_room: str
    slide: str
    room: Room | Literal["slide not measured"]
    best: bool


@dataclass(frozen=True)
class Window:
    """The shortest and longest belt (outside length, m; outside and datum length as shown), the choices inside, and what to say."""

    shortest_m: float
    longest_m: float
    shortest_us: str
    shortest_si: str
    longest_us: str
    longest_si: str
    datum_us: str
    datum_si: str
    choices: tuple[MadeLength, ...]
    verdicts: tuple[Verdict, ...]


@dataclass(frozen=True)
class _Slide:
    """Diameters of the belt's line, and the centres the motor can reach (m)."""

    d: float
    big: float
    closest: float
    now: float
    farthest: float


def window(on: VSet, base: Slide, slack_clutch: bool = False) -> Window | None:
    """The length window of a drive without a belt; None until section, both wheels and the centres are known."""
    if not (on.section and on.driver_diameter and on.driven_diameter and on.centre_distance):
        return None
    section = on.section
    d, big = (
        given.value
        if basis == "datum"
        else line_on_flat(section, given.value)
        if basis == "flat"
        else datum_from_outside(section, given.value, kind)
        for given, basis, kind in (
            (on.driver_diameter, on.driver_basis, on.driver_groove),
            (on.driven_diameter, on.driven_basis, on.driven_groove),
        )
    )
    now = on.centre_distance.value
    unknown = _UNKNOWN_SLIDE * now
    touching = (d + big) / 2
    slide = _Slide(
        d,
        big,
        now - base.closer.value if base.closer else max(now - unknown, touching * _CLEAR),
        now,
        now + (base.away.value if base.away else unknown),
    )
    if slide.closest <= touching * (1 + 1e-9) or now <= touching:
        return None
    guess = belt_of(section, max(1.0, number_from_datum(section, belt_length(d, big, now))))
    room = allowance(guess) or Allowance(0.0, 0.0, section.confidence)
    shortest = belt_length(d, big, min(slide.closest + room.installation_m, slide.farthest))
    longest = belt_length(d, big, max(slide.farthest - room.takeup_m, slide.closest))
    measured = bool(base.closer and base.away)
    choices = _choices(section, slide, slack_clutch, measured)
    to_outside = lengths(section, guess.number).outside_m - guess.datum_length_m
    low, high = sorted((shortest, longest)) if shortest > longest else (shortest, longest)
    us_low, si_low = shown(low + to_outside, "length", decimals=(1, 0))
    us_high, si_high = shown(high + to_outside, "length", decimals=(1, 0))
    datum = [shown(v, "length", decimals=(1, 0)) for v in (low, high)]
    return Window(
        low + to_outside,
        high + to_outside,
        us_low,
        si_low,
        us_high,
        si_high,
        f"{datum[0][0]} to {datum[1][0]}",
        f"{datum[0][1]} to {datum[1][1]}",
        choices,
        tuple(_verdicts(section, slide, choices, shortest > longest, measured, slack_clutch)),
    )


def _choices(section: Section, slide: _Slide, slack_clutch: bool, measured: bool) -> tuple[MadeLength, ...]:
    low, high = (belt_length(slide.d, slide.big, c) for c in (slide.closest, slide.farthest))
    if slack_clutch:
        middle = belt_length(slide.d, slide.big, slide.now)
        low, high = middle - _CLUTCH, middle + _CLUTCH
    made = {b.number: b for b in standard_belts(section.name)} | {
        n: belt_of(section, n) for n in counter_numbers(section.name) if low <= lengths(section, n).datum_m <= high
    }
    inside = [b for b in made.values() if low <= b.datum_length_m <= high]
    if not inside and not slack_clutch:
        middle = belt_length(slide.d, slide.big, slide.now)
        inside = [
            b
            for b in nearest_belts(section, middle)
            if b and b.datum_length_m > belt_length(slide.d, slide.big, (slide.d + slide.big) / 2 * _CLEAR)
        ]
    judged = [(_rank(b, slide, slack_clutch), b) for b in inside]
    judged.sort(key=lambda pair: (-pair[0][0], not pair[1].listed))
    best = judged[0][1].number if judged else None
    kept = [b for _, b in judged if b.listed or b.number == best]
    kept += [b for _, b in judged if not b.listed and b.number != best][:_OFF_LIST]
    return tuple(_choice(b, slide, b.number == best, measured) for b in sorted(kept, key=lambda b: b.number))


def _rooms(belt: Belt, slide: _Slide) -> tuple[float, float, float]:
    tight = centre_distance(slide.d, slide.big, belt.datum_length_m)
    return tight, tight - slide.closest, slide.farthest - tight


def _rank(belt: Belt, slide: _Slide, slack_clutch: bool) -> tuple[float]:
    """How well a belt serves: the scarcer of fitting room and take-up room, each against what is usual; a standard one before others."""
    tight, fit, takeup = _rooms(belt, slide)
    if slack_clutch:
        return (-abs(tight - slide.now),)
    usual = allowance(belt) or Allowance(0.02, 0.04, belt.section.confidence)
    scarce = min(fit / max(usual.installation_m, 1e-4), takeup / max(usual.takeup_m, 1e-4))
    return (min(scarce, 1.5) + (0.25 if belt.listed else 0.0),)


def _choice(belt: Belt, slide: _Slide, best: bool, measured: bool) -> MadeLength:
    tight, fit, takeup = _rooms(belt, slide)
    usual = allowance(belt)
    fits = usual is None or fit >= usual.installation_m - 1e-4
    takes = usual is None or takeup >= usual.takeup_m - 1e-4
    room: Room | Literal["slide not measured"]
    room = (
        "slide not measured"
        if not measured
        else "good"
        if fits and takes
        else "little to take up"
        if fits
        else "little to fit"
        if takes
        else "tight both ways"
    )
    outside = shown(lengths(belt.section, belt.number).outside_m, "length", decimals=(1, 0))
    return MadeLength(
        belt.designation,
        belt.listed,
        tight,
        *shown(tight, "length", to_set=True),
        *outside,
        fit,
        takeup,
        _room(fit, usual.installation_m if usual else None) if measured else "",
        _room(takeup, usual.takeup_m if usual else None) if measured else "",
        slide_needed(tight, slide.now, *((usual.installation_m, usual.takeup_m) if usual else ())),
        room,
        best,
    )


def _room(there: float, usual: float | None) -> str:
    if there < 0:
        return "none"
    us, si = shown(there, "length", to_set=True)
    if usual is None:
        return f"{us} ({si})"
    wanted, _ = shown(usual, "length", decimals=(1, 0))
    return f"{us} ({si}) of {wanted} usual"


def _verdicts(
    section: Section, slide: _Slide, choices: tuple[MadeLength, ...], crossed: bool, measured: bool, slack_clutch: bool
) -> list[Verdict]:
    found = []
    best = next((c for c in choices if c.best), None)
    if best is None and slack_clutch:
        return [
            Verdict(
                "window",
                Tone.WATCH,
                "No counter belt is within a quarter inch of these centres",
                "On a slack-belt clutch a quarter of an inch decides: too short it never lets go, too long it never grips. Ask for the "
                "machine's own part number.",
            )
        ]
    if best is None:
        return [
            Verdict(
                "window",
                Tone.STOP,
                f"No {section.name} belt is made for these centres",
                "Measure again, or choose another section or move the motor.",
            )
        ]
    if slack_clutch:
        found.append(
            Verdict(
                "window",
                Tone.OPEN,
                f"Ask for {best.designation}; a quarter of an inch matters on a slack-belt clutch",
                "Too short: it drags and heats when it should idle. Too long: it never grips. Set the clutch where it engages, tape the "
                "centres there, and try the belt idling before you leave.",
            )
        )
        return found
    if not measured:
        found.append(
            Verdict(
                "window",
                Tone.OPEN,
                f"By the tape alone: {best.designation}",
                f"It is tight at centres of {best.centres_us} ({best.centres_si}). How far the motor slides is not known: measure it "
                "closer and away, then the window shows which length can be fitted and still be taken up.",
            )
        )
        return found
    if best.room == "good":
        found.append(Verdict("window", Tone.GOOD, f"Ask for {best.designation}", "It goes on without prying and leaves room to take up."))
    elif best.room == "little to take up":
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                f"Ask for {best.designation}, but little is left to take up",
                f"Take-up room {best.takeup_room}. It will need a shorter belt or a moved base before it is worn out.",
            )
        )
    elif best.room == "little to fit":
        found.append(
            Verdict(
                "window",
                Tone.WATCH,
                f"Ask for {best.designation}, but it is tight to fit",
                f"Room to close {best.fit_room}. Never pry or roll it on: take a sheave off, or free more slide.",
            )
        )
    else:
        found.append(
            Verdict(
                "window",
                Tone.STOP,
                f"The slide is too short for any length: nearest {best.designation}",
                f"Room to fit {best.fit_room}, to take up {best.takeup_room}. Move the motor base, or mount an idler.",
            )
        )
    if crossed and best.room == "good":
        found.append(
            Verdict(
                "window", Tone.OPEN, "The slide is short for belts of this length", "The window shown is where neither end is met in full."
            )
        )
    return found
