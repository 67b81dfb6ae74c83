"""Two-wheel V drives are answered as before the inside was rebuilt, to the digit."""

import json

from tests import frozen_sheets


def test_two_hundred_sheets_are_answered_to_the_digit_as_before() -> None:
    kept = frozen_sheets.KEPT.read_text().splitlines()
    assert len(kept) == frozen_sheets.COUNT
    for number, (line, form) in enumerate(zip(kept, frozen_sheets.forms(), strict=True)):
        assert json.loads(json.dumps(frozen_sheets.answer(form))) == json.loads(line), f"sheet {number}: {form}"
