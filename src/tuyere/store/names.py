"""Names people sign in by: none that looks like another's, none with signs that cannot be seen."""

import unicodedata

from confusable_homoglyphs import confusables

_UNSEEN = {"Cc", "Cf", "Cs", "Co", "Cn", "Zl", "Zp"}


def name_problem(name: str) -> str:
    """A sentence of what is wrong with a name, or nothing."""
    if not name.strip():
        return "Write the name they sign in by."
    if any(unicodedata.category(c) in _UNSEEN for c in name):
        return "This name holds a sign that cannot be seen: write it again by hand."
    if confusables.is_dangerous(name):
        return "This name mixes letters of two alphabets that look alike: write it in one."
    return ""


def name_key(name: str) -> str:
    """What two names share when they cannot be told apart: no case, one form of each sign, letters by the Latin ones they look like."""
    plain = unicodedata.normalize("NFKC", name)
    alike = confusables.is_confusable(plain, greedy=True, preferred_aliases=["latin"]) or []
    latin = {c["character"]: next((h["c"] for h in c["homoglyphs"] if h["n"].startswith("LATIN")), c["character"]) for c in alike}
    return " ".join("".join(latin.get(c, c) for c in plain).casefold().split())
