"""How far the motor has to slide for a belt or chain."""

from tuyere.core.basis.figure import shown


def slide_needed(tight_m: float, now_m: float, to_fit_m: float = 0.0, to_take_up_m: float = 0.0) -> str:
    """In words, from where it stands, for one that is tight at those centres: closer by what fitting wants, away by what taking up wants.

    >>> slide_needed(0.5, 0.5, 0.0254)
    '1 in (25.5 mm) closer'
    """
    moves = (now_m - tight_m + to_fit_m, "closer"), (tight_m - now_m + to_take_up_m, "away")
    said = [f"{us} ({si}) {way}" for by, way in moves if by > 1e-4 for us, si in (shown(by, "length", to_set=True),)]
    return " and ".join(said) or "none"
