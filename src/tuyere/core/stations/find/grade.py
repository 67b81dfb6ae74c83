"""Grade for the duty: what a plain belt cannot stand, and what to ask for. Rules: common practice, no source, unless said."""

from dataclasses import dataclass

from tuyere.core.basis.page import Page
from tuyere.core.basis.verdict import Tone, Verdict
from tuyere.core.kinds.v_belt import Section, min_datum_diameter
from tuyere.core.kinds.v_belt.sheaves import diameters
from tuyere.core.kinds.v_belt.v_set import VSet

DUTIES: dict[str, str] = {
    "slack clutch": "The belt is slackened to stop the machine (clutching idler or sliding engine)",
    "deck": "Blades or brushes on a deck: shock, heat, grass or dust",
    "back idler": "An idler presses on the belt's back",
    "shock": "Jams, hard starts, farm work",
    "hot": "Hotter than about 60 °C (140 °F) round the belt",
    "oily": "Oil or grease reaches the belt",
    "dusty": "Grit or grain dust in the grooves",
    "twisted": "The belt is turned a quarter, or the shafts are not parallel",
}
LIFE_H = 20_000.0  # a V-belt set in order, 20 000 to 25 000 h: rule of thumb, no source
LIGHT_LIFE_H = 2_000.0  # light-duty belts and clutching drives: rule of thumb, no source
_EARLY = 1 / 3
EARLY_FINDING = "Sets die early: wrong angle, depth or grade"


@dataclass(frozen=True)
class Grade:
    """What to ask for at the counter (words), the verdicts, and whether the last sets died early."""

    ask: tuple[str, ...]
    verdicts: tuple[Verdict, ...]
    early: bool


def grade(section: Section, duties: tuple[str, ...], on: VSet | None = None, lives_h: tuple[float, ...] = ()) -> Grade:
    """Judge a section against what the drive does to it. `lives_h`: running hours of the last sets, oldest first."""
    ask: list[str] = []
    found: list[Verdict] = []
    clutching = {"slack clutch", "deck"} & set(duties)
    if clutching:
        ask.append("clutching grade: aramid cord, dry cover that slips and grips without burning")
        found.append(
            Verdict(
                "grade",
                Tone.WATCH,
                "A standard grade may do for traction and fails on a deck or slack clutch",
                "Ask for a clutching grade by the machine's own part number; a plain belt glazes or grabs.",
            )
        )
    if "back idler" in duties:
        ask.append(
            "made for a back idler (bends both ways)" if section.construction != "hexagonal" else "hexagonal: drives from both faces"
        )
        if section.construction != "hexagonal":
            found.append(
                Verdict(
                    "grade",
                    Tone.WATCH,
                    "Bent backwards over an idler: it wants a belt made for it",
                    "A plain belt cracks across its back. Ask for one made to bend both ways; the idler flat and as large as the "
                    "smallest sheave or larger.",
                )
            )
    small = _small_wheel(section, on)
    if small:
        found.append(small)
        ask.append("notched (cogged)")
    if {"shock"} & set(duties):
        ask.append("heavy cord for shock" + (" (agricultural section)" if section.series == "classical inch" else ""))
        if section.series == "light-duty inch":
            found.append(
                Verdict(
                    "grade",
                    Tone.WATCH,
                    f"{section.name} is a light-duty belt",
                    "It does not stand shock: ask for the classical belt of the same width.",
                )
            )
    for duty, word in (
        ("hot", "heat-resisting"),
        ("oily", "oil-resisting"),
        ("dusty", "wrapped: a cover stands grit better than raw edges"),
        ("twisted", "wrapped; deep grooves or joined belts against turning over"),
    ):
        if duty in duties:
            if duty != "dusty" or not section.cogged:
                ask.append(word)
            else:
                found.append(
                    Verdict(
                        "grade",
                        Tone.WATCH,
                        "Grit and a raw-edged belt",
                        "Raw edges wear faster in grit than a wrapped belt: choose wrapped where the sheaves are large enough.",
                    )
                )
    early = died_early(section, bool(clutching), lives_h)
    if early:
        usual = LIGHT_LIFE_H if clutching or section.series == "light-duty inch" else LIFE_H
        shown = ", ".join(f"{h:g} h" for h in lives_h[-3:])
        found.append(
            Verdict(
                "grade",
                Tone.STOP,
                EARLY_FINDING,
                f"The last sets lasted {shown}; {usual:.0f} h is usual. Check section, groove angle and depth before the next set goes "
                "on; then tension and alignment.",
            )
        )
    if not found:
        found.append(Verdict("grade", Tone.GOOD, "A standard grade will do", "Nothing said here asks for more."))
    return Grade(tuple(ask), tuple(found), early)


def died_early(section: Section, clutching: bool, lives_h: tuple[float, ...]) -> bool:
    """Whether the last two sets or more each lasted under a third of what is usual."""
    usual = LIGHT_LIFE_H if clutching or section.series == "light-duty inch" else LIFE_H
    return len(lives_h) >= 2 and all(h < _EARLY * usual for h in lives_h[-2:])


def _small_wheel(section: Section, on: VSet | None) -> Verdict | None:
    if on is None or section.construction != "wrapped":
        return None
    page = Page()
    diameters(on, page)
    smallest = min((page.values[k].n for k in ("driver_datum", "driven_datum") if page.has(k)), default=None)
    if smallest is None or smallest >= min_datum_diameter(section):
        return None
    return Verdict(
        "grade",
        Tone.WATCH,
        f"The small wheel is under what a wrapped {section.name} wants",
        "Small wheels want notched belts: ask for the notched section that runs in the same groove.",
    )
