"""What every answer is made of: a model as JSON, and a figure as shown in both systems."""

from flask import Response
from pydantic import BaseModel

from tuyere.core.basis.figure import shown


class BothOut(BaseModel):
    """A figure in both systems."""

    us: str
    si: str


def both_out(value: float, kind: str, to_set: bool = False, decimals: tuple[int, int] | None = None) -> BothOut:
    """A value in both systems."""
    us, si = shown(value, kind, to_set, decimals)
    return BothOut(us=us, si=si)


def answer(model: BaseModel, status: int = 200) -> Response:
    """A model as JSON."""
    return Response(model.model_dump_json(), status=status, content_type="application/json")
