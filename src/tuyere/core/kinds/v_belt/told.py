"""What V-belts and link belting tell those who work at them."""

from tuyere.core.basis.figure import both, fine, shown
from tuyere.core.basis.number import Number, said
from tuyere.core.basis.typed import Typed
from tuyere.core.kinds import v_belt
from tuyere.core.kinds.survey import Part
from tuyere.core.kinds.told import Called, Told
from tuyere.core.kinds.v_belt.allowance import allowance
from tuyere.core.kinds.v_belt.link import LinkReading, read_link
from tuyere.core.kinds.v_belt.survey import most_turns

_MOST_COUNTED = 24


def link_of(part: Part) -> LinkReading:
    """Its link belting, as measured and looked at."""
    link = part.more.get("link", Part())
    return read_link(link.quantities, link.words)


def is_link(part: Part) -> bool:
    """Whether link belting is on."""
    return part.words.get("section", "").startswith("link")


def facts(part: Part) -> tuple[str, ...]:
    """What is on, in the words of jobs and rounds."""
    words, link = part.words, is_link(part)
    return (
        *(["link"] * (link or link_of(part).belt is not None)),
        *(["link on"] * link),
        *(["set"] * (words.get("belt_count", "").strip() not in ("", "1"))),
        *(["adjustable"] * (words.get("adjustable", "") not in ("", "none"))),
    )


def side_by_side(part: Part) -> int:
    """How many belts or bands; 1 where nobody counted."""
    said_of = part.words.get("belt_count", "").strip()
    return int(said_of) if said_of.isdigit() and 1 <= int(said_of) <= _MOST_COUNTED else 1


def called(part: Part) -> Called:
    """As one asks for it."""
    sizes = (part.quantities.get(f"{role}_diameter", Typed()) for role in ("driver", "driven"))
    driver, driven = (f"{e.text} {e.unit}".strip() if e.text.strip() else "" for e in sizes)
    words, count = part.words, side_by_side(part)
    belt = words.get("belt") or (f"{words['section']} belts" if words.get("section") else "the belts")
    return Called(driver, driven, f"{count} x {belt}, one matched set" if count > 1 else belt)


def told(part: Part) -> Told:
    """What it tells a job."""
    found: dict[str, Number] = {}
    if link := link_of(part).belt:
        out = str(link.take_out) if link.take_out else "as many as still let it join"
        found["links_hand"] = said("Links, hand-tight", str(link.hand_tight), f"{fine(link.pitch_m)} a link", "survey")
        found["links_out"] = said("Links out", out, f"{both(link.length_m)} is left", "survey")
    found["turns_range"] = turns_range(part.words.get("section", ""))
    if turns := part.quantities.get("open_turns", Typed()).text:
        found["turns_open"] = said("Turns open", turns, "from closed, as the survey has it", "survey")
    if name := part.words.get("belt", "").strip():
        try:
            room = allowance(v_belt.parse_designation(name))
        except v_belt.BeltError:
            room = None
        if room:
            found["slack_off"] = Number("Centres in by", *shown(room.installation_m, "length", to_set=True), page="survey")
    return Told(found)


def turns_range(section: str) -> Number:
    """Between which turns an adjustable sheave for a section stands."""
    most = most_turns(section)
    return said(
        "Between",
        f"1 and {most:g} turns open" if most else "",
        "never fully closed; its own plate goes before",
        "survey",
        "common practice, no source (low)",
    )
