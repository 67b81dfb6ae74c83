"""What is on the record of a drive in the words of a diagnosis: one list of signs, whoever told them and wherever."""

from collections.abc import Iterable

from tuyere.core.kinds.wear_limits import limit_of
from tuyere.core.stations.inspect.diagnosis.match import hear
from tuyere.core.stations.inspect.rounds.checklist import items
from tuyere.core.stations.inspect.signs import signs

_SURE = 0.75  # of words that nobody was asked about, only what they clearly say: a judgement
_BEGINS = 0.7  # what is judged by eye counts from where it begins


def told_by_finding(sign: str, words: str, round_items: Iterable[str] = ()) -> frozenset[str]:
    """The signs of a diagnosis that a finding says: by its plain sign, by the items of a round that were not OK, and in its own words.

    >>> sorted(told_by_finding("squeals at start", ""))
    ['squeal_start']
    >>> sorted(told_by_finding("round", "the belt is cracked across the bottom", ["wheels"]))
    ['bottom_cracks', 'sheave_moved']
    """
    plain = signs()[sign].tells if sign in signs() else ()
    walked = (key for item in round_items for key in (items()[item].tells if item in items() else ()))
    heard = (one.key for one in hear(words).seen if one.score >= _SURE) if words.strip() else ()
    return frozenset((*plain, *walked, *heard))


def told_by_wear(what: str, share: float) -> frozenset[str]:
    """The signs that wear says, past its limit, or by eye from where it begins.

    >>> sorted(told_by_wear("belt_cracks", 0.7)), sorted(told_by_wear("bushing", 0.9)), sorted(told_by_wear("bushing", 1.2))
    (['bottom_cracks'], [], ['bushing_play'])
    """
    limit = limit_of(what)
    return frozenset(limit.tells) if share >= (_BEGINS if limit.unit == "look" else 1.0) else frozenset()
