"""The counter slip: the one answer to take to the shop. Made from what was found out, complete or not."""

from tuyere.core.basis.figure import both, fine, shown
from tuyere.core.kinds.counter import CounterSlip
from tuyere.core.kinds.v_belt import Belt, Section, lengths, min_datum_diameter, sections
from tuyere.core.kinds.v_belt.link import LinkBelt
from tuyere.core.kinds.v_belt.v_set import VSet
from tuyere.core.stations.find import alike
from tuyere.core.stations.find.answer import equivalents
from tuyere.core.stations.find.grade import Grade
from tuyere.core.stations.find.window import Window


def counter_slip(
    belt: Belt, count: int | None, joined: bool, on: VSet | None, window: Window | None, grade: Grade | None, machine_part: str
) -> CounterSlip:
    """Everything the counter needs to know about one belt or set."""
    section = belt.section
    named = lengths(section, belt.number)
    width, height = shown(section.top_width_m, "length", to_set=True), shown(section.height_m, "length", to_set=True)
    outside, datum = (shown(v, "length", decimals=(1, 0)) for v in (named.outside_m, named.datum_m))
    size = [f"{section.name}: {width[0]} wide, {height[0]} deep ({width[1]} × {height[1]}), {section.construction}"]
    length = [f"{outside[0]} over the back by tape ({outside[1]}); datum length {datum[0]} ({datum[1]})", _number(belt)]
    if window:
        length.append(
            f"these centres take {window.shortest_us} to {window.longest_us} over the back ({window.shortest_si} to {window.longest_si})"
        )
        off = named.outside_m - window.longest_m if named.outside_m > window.longest_m else named.outside_m - window.shortest_m
        if abs(off) > _OFF_WINDOW * named.outside_m and not window.shortest_m <= named.outside_m <= window.longest_m:
            length.append(f"{belt.designation} is {'longer' if off > 0 else 'shorter'} than that: measure again before you buy")
    refused, why_not = _refuse(belt, count, joined)
    others = tuple(f"{n.designation} ({_duty(belt, n.section)})" for n in equivalents(belt) if n.section not in refused)
    return CounterSlip(
        belt.designation,
        _count(count, joined, belt.ribs),
        others,
        machine_part,
        tuple(size),
        tuple(length),
        grade.ask if grade else (),
        why_not,
        _check_first(belt, on),
    )


def link_length(link: LinkBelt) -> str:
    """How much link belting a drive takes, in words."""
    return f"{link.links} links, {both(link.length_m)} joined ({fine(link.pitch_m)} a link); buy five links more"


def link_slip(link: LinkBelt, section: str, machine_part: str) -> CounterSlip:
    """What to ask for of link belting: by its width, and its length from the roll."""
    size = section.removeprefix("link").strip(" ,") or "by the sheave's section"
    refuse = ("tabs of another shape: they do not mesh", "a length cut through a link")
    return CounterSlip("Link belting", "from the roll", (), machine_part, (f"link belting, {size}",), (link_length(link),), (), refuse, ())


_UNITS = {"in": "inches", "mm": "millimetres"}
_MEASURES = {"inside": "its inside length, nominal", "datum": "its datum length", "effective": "its effective (outside) length"}


def _number(belt: Belt) -> str:
    """What the number in the belt's own name measures, which is seldom what a tape reads."""
    unit = _UNITS[belt.section.unit] if belt.section.step_m > 0.01 or belt.section.unit == "mm" else "tenths of an inch"
    return f"the {belt.number:g} in its name: {_MEASURES[belt.section.named_by]}, in {unit}"


_OFF_WINDOW = 0.01  # of the length: nearer than this the slide and the tape may still agree
_LIGHT = alike.LIGHT


def _duty(belt: Belt, other: str) -> str:
    """What to know of the same belt by another name: its duty where it is a lighter one, else its section."""
    if other in _LIGHT and belt.section.name not in _LIGHT:
        return "light duty only"
    if belt.section.series == "agricultural inch" and not other.startswith("H"):
        return "stand-in, not for farm duty"
    return other


def _count(count: int | None, joined: bool, ribs: int | None) -> str:
    if joined:
        many = "one joined belt" if not count or count == 1 else f"a matched set of {count} joined belts"
        return f"{many} of {ribs or '?'} ribs{'' if not count or count == 1 else ' each'}"
    if not count:
        return "count the grooves in use"
    return "one belt" if count == 1 else f"a matched set of {count}, one make, one lot"


def _refuse(belt: Belt, count: int | None, joined: bool) -> tuple[frozenset[str], tuple[str, ...]]:
    """Sections not to be taken instead, and what not to accept, in words."""
    found: list[str] = []
    refused: set[str] = set()
    plain = _plain(belt.section)
    if plain:
        refused.update(alike.same_belt(plain.name) | {plain.name})
        found.append(f"{plain.name}{belt.number:g}: {_why_not_plain(belt.section, plain)}")
    own = alike.shares_groove(belt.section.name)
    for a in alike.alikes():
        if len({a.section, a.other} & own) != 1:
            continue
        other = a.other if a.section in own else a.section
        if plain and other == plain.name:
            continue
        if a.kind == "alike":
            found.append(
                f"{other}: looks alike, another depth or angle"
                if other not in ("automotive", "deck belt")
                else f"an {other} belt"
                if other == "automotive"
                else "a special deck belt, unless by the machine's own number"
            )
        elif a.kind == "near":
            found.append(f"{other}: near, but another groove")
    light = sorted(alike.same_belt(belt.section.name) & set(_LIGHT) - {belt.section.name})
    if belt.section.name not in _LIGHT:
        refused.update(light)
        found += [f"{name}, its likeness in size: light duty, it carries about half and dies early" for name in light]
    if count and count > 1 and not joined:
        found.append("odd belts from several lots, or new ones beside used ones")
    if joined:
        found.append("singles in place of the joined belt, unless a matched set")
    return frozenset(refused), tuple(dict.fromkeys(found))


def _plain(section: Section) -> Section | None:
    """The plain wrapped section that a cogged, double-V or farm one is mistaken for at the counter."""
    if section.construction not in ("cogged", "hexagonal") and section.series != "agricultural inch":
        return None
    same_groove = (s for s in sections().values() if s.groove == section.groove and s.construction == "wrapped")
    return next((s for s in same_groove if s.series != "agricultural inch" and s.name != section.name), None)


def _why_not_plain(section: Section, plain: Section) -> str:
    if section.construction == "hexagonal":
        return "plain, drives from one face only: a wheel at its back stands still"
    if section.series == "agricultural inch":
        return "plain, not for farm duty: shock and slack clutching break it"
    least = shown(min_datum_diameter(plain), "length", decimals=(1, 0))
    return f"plain, carries less and wants wheels of {least[0]} ({least[1]}) at least"


def _check_first(belt: Belt, on: VSet | None) -> tuple[str, ...]:
    least = shown(min_datum_diameter(belt.section), "length", decimals=(1, 0))
    found = ["the smallest wheel first: it wears most; a ridge felt in the groove means a new sheave"]
    found.append(f"no wheel under {least[0]} ({least[1]}) datum for {belt.section.name}")
    if on and on.driver_diameter and on.driven_diameter:
        small = "driver" if on.driver_diameter.value <= on.driven_diameter.value else "driven"
        found[0] = f"the {small} wheel first: it is the smaller and wears most; a ridge felt in the groove means a new sheave"
    found.append("every wheel on the belt's path, idler too: groove gauge, shine at the bottom, nicks")
    return tuple(found)
