"""A record that is away, people and one-time codes, and Floor beside the stations."""

import re
from typing import Any

from playwright.sync_api import Page, Route, expect

from tests.browser.conftest import open_drive


def test_a_record_that_is_away_is_said_and_nothing_typed_is_lost(open_as: Any) -> None:
    page = open_as("Ines")
    open_drive(page, "Dust-collector fan", "Tension")
    page.locator("#f-force_1").fill("5.1")
    sentence = "The record cannot be reached just now. What you typed is still here; try again in a moment."
    away = {"type": "about:blank", "title": "Out of reach", "status": 503, "detail": sentence, "errors": [], "since": []}
    keys = []

    def gone(route: Route) -> None:
        keys.append(route.request.headers.get("idempotency-key"))
        route.fulfill(status=503, json=away, content_type="application/problem+json")

    page.route(re.compile("/api/(?!health)"), gone)
    page.route("**/api/health", lambda route: route.fulfill(status=503, json={"name": "tuyere", "plant": "", "database": "away"}))
    page.get_by_role("button", name="Keep this reading").click()
    expect(page.get_by_role("status").filter(has_text=sentence).first).to_be_visible()
    expect(page.locator("#f-force_1")).to_have_value("5.1")
    page.unroute_all()
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible(timeout=20_000)
    expect(page.get_by_role("status").filter(has_text=sentence)).to_have_count(0)
    assert len(set(keys) - {None}) == 1


def settings_of(page: Page) -> None:
    page.get_by_role("button", name="Settings").click()


def test_a_forgotten_passphrase_and_a_leaver(open_as: Any, address: str) -> None:
    lead = open_as("Marta")
    settings_of(lead)
    lead.get_by_label("Name").last.fill("Ulla of the night shift")
    lead.get_by_label("First passphrase, to hand over").fill("password12")
    lead.get_by_role("button", name="Add", exact=True).click()
    expect(lead.get_by_text("This is easy to guess")).to_be_visible()
    lead.get_by_label("First passphrase, to hand over").fill("four sleepy herons wade")
    lead.get_by_role("button", name="Add", exact=True).click()
    ulla = lead.locator("li").filter(has_text="Ulla of the night shift")
    ulla.get_by_role("button", name=re.compile("never signed in")).click()
    ulla.get_by_role("button", name="New passphrase: a code").click()
    code = ulla.locator(".code b").inner_text()

    other = lead.context.browser.new_context(base_url=address)
    page = other.new_page()
    page.goto("/")
    page.get_by_text("I have a one-time code").click()
    form = page.locator("details form")
    form.get_by_label("Name").fill("ulla of the night shift")
    form.get_by_label("One-time code").fill(code)
    form.get_by_label("The passphrase you want").fill("nine red lanterns glow")
    form.get_by_role("button", name="Choose it and sign in").click()
    expect(page.get_by_role("heading", name="Sallowfield Maltings")).to_be_visible()

    ulla.get_by_role("button", name="Take off the site").click()
    lead.get_by_role("button", name="Take off", exact=True).click()
    expect(ulla).to_have_count(0)
    page.reload()
    expect(page.get_by_role("button", name="Sign in", exact=True)).to_be_visible()
    other.close()


def test_floor_says_what_the_stations_say(open_as: Any) -> None:
    page = open_as("Rowan")
    wanting = page.locator("section").filter(has=page.get_by_role("heading", name="Want attention"))
    quiet = page.locator("section").filter(has=page.get_by_role("heading", name="Running quietly"))
    row = wanting.locator("a.drive").filter(has_text="Sack roller conveyor")
    expect(row).to_contain_text("1 belt will not do: 7 needed")
    expect(quiet.locator("a.drive").filter(has_text="Drill press")).to_contain_text("Near the edge: cannot tell")
    row.click()
    expect(page.get_by_text("1 belt will not do: 7 needed").first).to_be_visible()
