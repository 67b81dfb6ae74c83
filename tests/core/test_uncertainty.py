"""Propagation against Monte Carlo (JCGM 101), and the words a verdict uses."""

import numpy as np
import pytest

from tuyere.core.basis.uncertainty import exact, largest_doubt, probability_between, uncertain, wrapped
from tuyere.core.mechanics.open_belt import belt_length


def test_linear_propagation_agrees_with_monte_carlo() -> None:
    rng = np.random.default_rng(7)
    means, stds = (0.15, 0.32, 0.75), (0.001, 0.0015, 0.002)
    linear = wrapped(belt_length)(*(uncertain(m, s, n) for m, s, n in zip(means, stds, "dDC", strict=True)))
    sampled = [belt_length(*row) for row in rng.normal(means, stds, (20_000, 3))]
    assert linear.n == pytest.approx(np.mean(sampled), abs=4e-5)
    assert linear.s == pytest.approx(np.std(sampled), rel=0.03)
    doubt = largest_doubt(linear)
    assert doubt is not None and doubt[0] == "C" and 0.5 < doubt[1] < 1


def test_shared_errors_do_not_average_away() -> None:
    span = uncertain(1.0, 0.1, "span")
    mean = (2 * span + 3 * span) / 2
    assert mean.s == pytest.approx(0.25)


def test_probability_of_lying_in_a_window() -> None:
    assert probability_between(uncertain(10.0, 1.0, "x"), 8.04, 11.96) == pytest.approx(0.95, abs=1e-3)
    assert probability_between(exact(5.0), 4, 6) == 1
    assert largest_doubt(exact(5.0)) is None
