"""A noisy-OR of causes: at most two at once, each showing its signs and checks by itself.

P(finding absent | causes) = (1 - leak) Π (1 - strength). A state is one cause, or two together (rarer than if they came by chance alone).
A finding that nobody has looked for is no evidence. Source of the form: Pearl, Probabilistic Reasoning in Intelligent Systems (noisy-OR).
"""

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache, cached_property

import numpy as np
from numpy.typing import NDArray

from tuyere.core.stations.inspect.diagnosis.knowledge import NOTHING, Cause, knowledge

Vector = NDArray[np.float64]
TWO_AT_ONCE = 0.15  # of what independence would say: a judgement
_SURE = 0.995  # no finding is surer than that: people and tools err


@dataclass(frozen=True)
class Net:
    """The causes of a family, its states (pairs of places, one cause twice where it is alone) and how likely each finding is in each."""

    causes: tuple[Cause, ...]
    first: NDArray[np.int64]
    second: NDArray[np.int64]
    log_prior: Vector
    signs: dict[str, Vector]
    checks: dict[str, Vector]

    @cached_property
    def holds(self) -> Vector:
        """Whether a cause (row) is in a state (column)."""
        places = np.arange(len(self.causes))[:, None]
        return np.asarray((places == self.first) | (places == self.second), dtype=float)

    def states(self, seen: Mapping[str, bool], checked: Mapping[str, bool]) -> Vector:
        """The share of each state, given which signs are there and how checks came out."""
        weight = self.log_prior.copy()
        for found, of in ((seen, self.signs), (checked, self.checks)):
            for key, yes in found.items():
                if (p := of.get(key)) is not None:
                    weight += np.log(p if yes else 1 - p)
        share = np.exp(weight - weight.max())
        return np.asarray(share / share.sum())

    def causes_of(self, states: Vector) -> Vector:
        """How likely each cause is at work."""
        return np.asarray(self.holds @ states)

    def tells(self, states: Vector, check: str) -> float:
        """What a check's outcome says of the state, in bits: what it leaves open now less what it would leave open in each state."""
        p = self.checks[check]
        return float(_bits(np.asarray(p @ states)) - _bits(p) @ states)


def _bits(p: Vector) -> Vector:
    p = np.clip(p, 1e-12, 1 - 1e-12)
    return np.asarray(-p * np.log2(p) - (1 - p) * np.log2(1 - p))


@cache
def net(family: str, not_there: frozenset[str] = frozenset()) -> Net:
    """Of a family, without the causes that cannot be here."""
    known = knowledge()
    causes = tuple(c for c in known.causes.values() if c.prior.get(family, 0.0) > 0 and c.key not in not_there)
    odds = np.array([c.prior[family] / (1 - c.prior[family]) for c in causes])
    one = np.arange(len(causes))
    a, b = np.triu_indices(len(causes), 1)
    both = np.array([NOTHING not in (causes[i].key, causes[j].key) for i, j in zip(a, b, strict=True)])
    first, second = np.concatenate([one, a[both]]), np.concatenate([one, b[both]])
    prior = np.concatenate([odds, TWO_AT_ONCE * odds[a[both]] * odds[b[both]]])

    def likely(leak: float, strengths: Vector) -> Vector:
        alone = len(causes)
        absent = (1 - leak) * (1 - strengths[first]) * np.where(np.arange(len(first)) < alone, 1.0, 1 - strengths[second])
        return np.asarray(np.clip(1 - absent, 1 - _SURE, _SURE))

    signs = {
        s.key: likely(s.leak, np.array([c.shows.get(s.key, 0.0) for c in causes])) for s in known.signs.values() if family in s.families
    }
    checks = {
        k.key: likely(k.leak, np.array([c.checks.get(k.key, 0.0) for c in causes])) for k in known.checks.values() if family in k.families
    }
    return Net(causes, first, second, np.log(prior), signs, checks)
