"""Computation without a record, its errors, the OpenAPI document, and the served page."""

import math
from typing import Any

import pytest
from flask import Flask
from pydantic import BaseModel, RootModel

SURVEY = {
    "quantities": {
        k: {"text": v}
        for k, v in {
            "driver_power": "5 hp",
            "driver_speed": "1750",
            "hours_per_day": "10",
            "driver_diameter": "5 3/4",
            "driven_diameter": "12 3/4",
            "centre_distance": "28",
        }.items()
    },
    "choices": {"section": "B", "belt_count": "2", "driven_class": "light"},
}


def post(app: Flask, name: str, body: Any) -> Any:
    return app.test_client().post(f"/api/calc/{name}", json=body)


def test_typed_and_si_give_the_same_sheet(app: Flask) -> None:
    typed = post(app, "sheet", {"survey": SURVEY}).json["figures"]
    inch, rpm = 0.0254, math.pi / 30
    si = post(
        app,
        "drive",
        {
            "driver_power_w": 3728.49935791,
            "driver_speed_rad_per_s": 1750 * rpm,
            "driven_class": "light",
            "hours_per_day": 10,
            "section": "B",
            "driver_diameter_m": 5.75 * inch,
            "driven_diameter_m": 12.75 * inch,
            "centre_distance_m": 28 * inch,
            "belt_count": 2,
        },
    ).json["figures"]
    assert typed.keys() == si.keys()
    for key, figure in typed.items():
        assert si[key]["value_si"] == pytest.approx(figure["value_si"], rel=1e-6), key
    assert typed["wrap_driver"]["value_si"] == pytest.approx(math.pi - 2 * math.asin(7 / 56))


@pytest.mark.parametrize(
    ("name", "body", "field", "expected"),
    [
        ("quantity", {"text": "3/8", "kind": "length", "unit": "in"}, "value_si", 0.009525),
        ("belt-length", {"driver_diameter_m": 0.2, "driven_diameter_m": 0.2, "centre_distance_m": 1}, "belt_length_m", 2 + math.pi * 0.2),
        (
            "centre-distance",
            {"driver_diameter_m": 0.2, "driven_diameter_m": 0.2, "belt_length_m": 2 + math.pi * 0.2},
            "centre_distance_m",
            1.0,
        ),
        ("rated-power", {"section": "B", "small_diameter_m": 0.13716, "fast_shaft_rad_per_s": 183.2596}, "total_w", 5.434 * 745.7),
        ("strand-tension", {"force_or_tension_n": 10, "span_m": 0.64}, "tension_n", 160),
        ("gauge-force", {"force_or_tension_n": 160, "span_m": 0.64}, "force_n", 10),
        ("slip", {"driver_rad_per_s": 100, "driven_rad_per_s": 49, "ratio": 2}, "slip", 0.02),
        ("service-factor", {"driven_class": "heavy", "hours_per_day": 10}, "service_factor", 1.3),
        (
            "static-tension",
            {"design_power_w": 4000, "belt_speed_m_per_s": 12, "belts": 2, "small_wheel_wrap_rad": 3.14159, "mass_kg_per_m": 0},
            "tension_n",
            125.0,
        ),
        (
            "static-tension",
            {
                "design_power_w": 4000,
                "belt_speed_m_per_s": 12,
                "belts": 2,
                "small_wheel_wrap_rad": 3.14159,
                "mass_kg_per_m": 0,
                "section": "B",
            },
            "tension_n",
            113.6,
        ),
        ("rated-power", {"section": "ISO A", "small_diameter_m": 0.1, "fast_shaft_rad_per_s": 151.84}, "total_w", 1320),
        (
            "rated-power",
            {"section": "5V", "small_diameter_m": 0.31496, "fast_shaft_rad_per_s": 121.475, "ratio": 1.72},
            "total_w",
            27.58 * 745.7,
        ),
        (
            "service-factor",
            {"driven_class": "heavy", "hours_per_day": 10, "speed_up": 2, "starts": "frequent or reversing"},
            "service_factor",
            1.3 * 1.11 * 1.2,
        ),
    ],
)
def test_each_computation_answers_without_sign_in(app: Flask, name: str, body: Any, field: str, expected: float) -> None:
    assert post(app, name, body).json[field] == pytest.approx(expected, rel=1e-3)


@pytest.mark.parametrize(
    ("name", "body", "field"),
    [
        ("quantity", {"text": "12 parsecs", "kind": "length"}, "text"),
        ("belt-length", {"driver_diameter_m": 0.1, "driven_diameter_m": 2, "centre_distance_m": 0.2}, "centre_distance_m"),
        ("belt-length", {"driver_diameter_m": -1, "driven_diameter_m": 2, "centre_distance_m": 2}, "driver_diameter_m"),
        ("centre-distance", {"driver_diameter_m": 0.3, "driven_diameter_m": 0.3, "belt_length_m": 0.5}, "belt_length_m"),
        ("rated-power", {"section": "Q", "small_diameter_m": 0.1, "fast_shaft_rad_per_s": 100}, "section"),
        ("drive", {"section": "B", "belt": "A50"}, "belt"),
        ("sheet", {"survey": {"stages": [{"fitted": {"choices": {"section": "x" * 500}}}]}}, "survey.stages.0.fitted.choices.section"),
    ],
)
def test_refusals_are_problem_details_with_the_field_named(app: Flask, name: str, body: Any, field: str) -> None:
    answer = post(app, name, body)
    assert answer.status_code == 422 and answer.content_type == "application/problem+json"
    assert answer.json["errors"][0]["field"] == field and answer.json["errors"][0]["detail"].strip()


def test_ten_megabytes_and_broken_json_get_a_sentence(app: Flask) -> None:
    client = app.test_client()
    huge = client.post("/api/calc/quantity", data=b'{"text": "' + b"9" * 10_000_000 + b'"}', content_type="application/json")
    assert huge.status_code == 413 and "shorten" in huge.json["detail"]
    for data, kind in ((b"{", "application/json"), (b"\xff\xfe", "application/json"), (b"a=1", "text/plain"), (b"", "application/json")):
        assert 400 <= client.post("/api/calc/quantity", data=data, content_type=kind).status_code < 500
    assert client.get("/api/no-such-thing").json["status"] == 404
    assert client.get("/api/drives/not-a-uuid").status_code in (401, 404)


def test_page_and_headers(app: Flask) -> None:
    client = app.test_client()
    page = client.get("/drives/whatever/tension")
    assert page.status_code == 200 and page.headers["Cache-Control"] == "no-cache"
    assert "script-src" not in page.headers["Content-Security-Policy"] and "unsafe" not in page.headers["Content-Security-Policy"]
    asset = page.text.split('src="')[1].split('"')[0]
    served = client.get(asset)
    assert "immutable" in served.headers["Cache-Control"] and served.headers["X-Content-Type-Options"] == "nosniff"
    assert client.get("/assets/nothing-12345678.js").status_code == 404


def test_every_documented_computation_answers_a_bare_post(app: Flask) -> None:
    """The open API is open: no session, no token; an empty body is an answer or a sentence, never a 403."""
    client = app.test_client()
    document = client.get("/api/openapi.json").json
    paths = [p for p, methods in document["paths"].items() if p.startswith("/api/calc/") and "post" in methods]
    assert len(paths) > 30
    for path in paths:
        answer = client.post(path, json={})
        assert answer.status_code in (200, 422), (path, answer.status_code, answer.json)


def test_every_body_in_the_open_document_has_a_name_of_its_own(app: Flask) -> None:
    """Two models of one name would give a route another's body: each documented body has exactly its route's fields."""
    document = app.test_client().get("/api/openapi.json").json
    by_name: dict[str, set[type]] = {}
    for view in app.view_functions.values():
        for hint in view.__annotations__.values() if hasattr(view, "__annotations__") else ():
            if isinstance(hint, type) and issubclass(hint, BaseModel):
                by_name.setdefault(hint.__name__, set()).add(hint)
    assert len(by_name) > 40 and all(len(models) == 1 for models in by_name.values()), [n for n, m in by_name.items() if len(m) > 1]
    documented = document["components"]["schemas"]
    for name, (model,) in by_name.items():
        if issubclass(model, RootModel):
            continue  # one of several: it has no fields of its own
        for known in (n for n in documented if n.split(".")[0] == name):
            assert set(documented[known].get("properties", {})) == {f.alias or k for k, f in model.model_fields.items()}, name


def test_dues_by_hours_readings_and_a_move(app: Flask) -> None:
    """A set fitted before the night of summer time: 24 running hours, sooner by the meter, moved with its reason, gone when done."""
    asked: dict[str, Any] = {
        "now": "2026-03-29T09:00:00+02:00",
        "zone": "Europe/Berlin",
        "family": "v-belt",
        "hours_per_day": 8,
        "events": [{"kind": "new set", "at": "2026-03-28T12:00:00+01:00"}],
    }

    def first(**more: Any) -> Any:
        return {d["rule"]: d for d in post(app, "dues", asked | more).json["dues"]}.get("v first day")

    assert first()["expected"] == "2026-03-31T13:00:00+02:00" and first()["earliest"] < first()["expected"] < first()["latest"]
    assert first()["reason"].startswith("Because the new set was fitted on Saturday 28 March: 24 running hours, about 3 days")
    readings = [{"at": "2026-03-28T12:00:00+01:00", "hours": 410}, {"at": "2026-03-29T09:00:00+02:00", "hours": 430}]
    assert first(hour_readings=readings)["expected"] == "2026-03-29T13:00:00+02:00", (
        "20 hours by the clock of the place, which skipped one, and 20 run"
    )
    moved = {
        "rule": "v first day",
        "answer": "moved",
        "at": "2026-03-29T08:00:00+02:00",
        "to": "2026-04-02T07:00:00+02:00",
        "why": "the line runs through",
    }
    assert first(answered=[moved])["reason"].endswith("Moved to Thursday 2 April (the line runs through).")
    assert first(answered=[moved | {"answer": "done"}]) is None
    assert [
        d["rule"]
        for d in post(app, "dues", asked | {"rules": [{"key": "mine", "event": "new set", "what": "Look", "after_months": 1}]}).json["dues"]
    ] == ["mine"]
    refused = post(app, "dues", asked | {"zone": "Mars/Olympus"})
    assert refused.status_code == 422 and "Europe/Berlin" in refused.json["errors"][0]["detail"]


@pytest.mark.parametrize(
    "old", ({"path": {"more_belts": 5}}, {"path": {"more_belts": ["B"]}}, {"choices": 3, "path": []}, {"quantities": {"driver_power": 1}})
)
def test_the_words_of_before_are_read_or_refused_but_break_nothing(app: Flask, old: dict[str, Any]) -> None:
    assert post(app, "sheet", {"family": "v-belt", "survey": old}).status_code in (200, 422)
