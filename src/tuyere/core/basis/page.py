"""The page under construction: figures, flags, verdicts and problems gathered step by step."""

from dataclasses import dataclass, field

from uncertainties import UFloat

from tuyere.core.basis.figure import Figure, Line
from tuyere.core.basis.verdict import Flag, Problem, Tone, Verdict


@dataclass
class Page:
    """Collects what the steps of `solve` find. `values` holds uncertain SI values for the steps that follow."""

    figures: dict[str, Figure] = field(default_factory=dict)
    values: dict[str, UFloat] = field(default_factory=dict)
    flags: list[Flag] = field(default_factory=list)
    verdicts: list[Verdict] = field(default_factory=list)
    problems: list[Problem] = field(default_factory=list)

    def put(self, figure: Figure, value: UFloat | None = None) -> Figure:
        """Put a figure on the page, and its value with its doubt where it has one."""
        self.figures[figure.key] = figure
        if value is not None:
            self.values[figure.key] = value
        return figure

    def lines(self, *names: str | tuple[str, str]) -> list[Line]:
        """The named figures as numbers put into a formula; a pair gives the symbol to use."""
        pairs = [n if isinstance(n, tuple) else (n, None) for n in names]
        return [self.figures[key].line(symbol) for key, symbol in pairs]

    def has(self, *keys: str) -> bool:
        """Whether all of these figures are there."""
        return all(key in self.figures for key in keys)

    def flag(self, code: str, where: str, sentence: str) -> None:
        """Bad practice: kept, computed and flagged beside its field."""
        self.flags.append(Flag(code, where, sentence))

    def refuse(self, where: str, sentence: str) -> None:
        """Impossible input: refused beside its field."""
        self.problems.append(Problem(where, sentence))

    def say(self, topic: str, tone: Tone, headline: str, detail: str, sureness: str = "", standing: bool = False) -> None:
        """A verdict."""
        self.verdicts.append(Verdict(topic, tone, headline, detail, sureness, standing))
