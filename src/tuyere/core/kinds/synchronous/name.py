"""A toothed belt by its name: 270L100, 8M-1200-30, 10 T5 x 480; its teeth, length and width."""

import re
from dataclasses import dataclass
from functools import cache

from tuyere.core.basis.table import rows
from tuyere.core.kinds.synchronous.profile import Profile, ToothedError, profile, profiles


@dataclass(frozen=True)
class ToothedBelt:
    """A belt by profile, teeth, and width (m; None where the name does not say). `form_open`: the name leaves H, S and R open."""

    profile: Profile
    teeth: int
    width_m: float | None
    listed: bool
    form_open: bool = False

    @property
    def length_m(self) -> float:
        """Length of the belt's line: teeth times pitch."""
        return self.teeth * self.profile.pitch_m

    @property
    def designation(self) -> str:
        """The name to ask for; `parse_name` reads it back."""
        p, width = self.profile, self.width_m
        if p.named_by == "inch":
            code = _code(p.name, self.teeth) or f"{self.length_m / 0.00254:.0f}"
            return f"{code}{p.name}{width / 0.000254:03.0f}" if width else f"{code}{p.name}"
        length = f"{self.length_m * 1000:g}"
        if p.named_by == "metric T":
            return f"{width * 1000:g} {p.name} x {length}" if width else f"{p.name} x {length}"
        return f"{length}-{p.name}-{width * 1000:g}" if width else f"{length}-{p.name}"


_INCH = re.compile(r"^(\d{2,4})\s*(XXL|MXL|XL|L|XXH|XH|H)\s*(\d{3})?$")
_METRIC_T = re.compile(r"^(?:(\d{1,3})\s*[/ ]?\s*)?(AT|T)\s*(2\.5|5|10|20)\s*[X×/ -]\s*(\d{2,5})$")
_PITCH_FIRST = re.compile(r"^([HSR]?)\s*(3|5|8|14|20)M\s*[- ]\s*(\d{2,5})(?:\s*[- ]\s*(\d{1,3}))?$")
_LENGTH_FIRST = re.compile(r"^(\d{2,5})\s*[- ]?\s*([HSR]?)(3|5|8|14|20)M(?:\s*[- ]\s*(\d{1,3}))?$")


def parse_name(text: str) -> ToothedBelt:
    """Read a name in any of the three systems. Raises ToothedError when it is none of them or its length is no whole number of teeth.

    >>> parse_name("270L100").teeth, parse_name("8M-1200-30").teeth, parse_name("10 T5 x 480").teeth
    (72, 150, 96)
    """
    cleaned = " ".join(text.strip().upper().split())
    if m := _INCH.match(cleaned):
        code, name, width = m.groups()
        found = profile(name)
        listed = {c: z for c, z in _codes(name)}
        teeth = listed.get(code) or round(int(code) * 0.00254 / found.pitch_m)
        return ToothedBelt(found, teeth, int(width) * 0.000254 if width else None, code in listed)
    if m := _METRIC_T.match(cleaned):
        width, letters, pitch, length = m.groups()
        return _by_length(profile(f"{letters}{pitch}"), float(length), width, False)
    if m := _PITCH_FIRST.match(cleaned):
        form, pitch, length, width = m.groups()
        return _by_length(profile(f"{form or 'H'}{pitch}M"), float(length), width, not form)
    if m := _LENGTH_FIRST.match(cleaned):
        length, form, pitch, width = m.groups()
        return _by_length(profile(f"{form or 'H'}{pitch}M"), float(length), width, not form)
    raise ToothedError("Write the name as it stands on the belt: 270L100, 8M-1200-30 or 10 T5 x 480.")


def _by_length(found: Profile, length_mm: float, width: str | None, form_open: bool) -> ToothedBelt:
    teeth = length_mm / 1000 / found.pitch_m
    if abs(teeth - round(teeth)) > 0.05 or round(teeth) < 5:
        raise ToothedError(f"{length_mm:g} mm is no whole number of {found.pitch_name} teeth: read the length again.")
    return ToothedBelt(found, round(teeth), float(width) / 1000 if width else None, round(teeth) in standard_teeth(found), form_open)


@cache
def _codes(pitch_name: str) -> tuple[tuple[str, int], ...]:
    return tuple((r["code"], int(r["teeth"])) for r in rows("toothed_lengths") if r["pitch_name"] == pitch_name)


def _code(pitch_name: str, teeth: int) -> str | None:
    return next((c for c, z in _codes(pitch_name) if z == teeth), None)


@cache
def standard_teeth(of: Profile) -> tuple[int, ...]:
    """Teeth of the standard lengths, shortest first."""
    return tuple(sorted(z for _, z in _codes(of.pitch_name)))


def forms_of(of: Profile) -> tuple[Profile, ...]:
    """The profiles of the same pitch that a short name leaves open, this one first; they look alike and do not mesh."""
    if of.named_by != "metric M":
        return (of,)
    return (of, *(p for p in profiles().values() if p.pitch_name == of.pitch_name and p is not of))
