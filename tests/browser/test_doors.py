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
    expect(page.get_by_text(re.compile("It stands in the log"))).to_be_visible()
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
    wanting = page.locator("section").filter(has=page.get_by_role("heading", name="Needs attention"))
    quiet = page.locator("section").filter(has=page.get_by_role("heading", name="No open items"))
    row = wanting.locator("a.drive").filter(has_text="Sack roller conveyor")
    expect(row).to_contain_text("The tabs lead: turn the belt round")
    expect(quiet.locator("a.drive").filter(has_text="Drill press")).to_contain_text("Right, as near as this tool can tell")
    row.click()
    expect(page.get_by_text("The tabs lead: turn the belt round").first).to_be_visible()


def test_two_tabs_on_a_name_and_on_a_what_if_settle_it_field_by_field(open_as: Any, address: str) -> None:
    first, second = open_as("Ines"), open_as("Marta")
    for page in (first, second):
        open_drive(page, "Barley screener")
        page.get_by_role("button", name="Machine and drive").click()
    slip = "Machine and drive"
    first.get_by_role("dialog", name=slip).get_by_label("Where it stands").fill("Tower, floor 2")
    first.get_by_role("dialog", name=slip).get_by_label("Note").fill("guard bolts are M10")
    first.get_by_role("dialog", name=slip).get_by_role("button", name="Keep").click()
    expect(first.get_by_role("dialog", name=slip)).to_have_count(0)
    second.get_by_role("dialog", name=slip).get_by_label("Where it stands").fill("Tower, floor 3")
    second.get_by_role("dialog", name=slip).get_by_role("button", name="Keep").click()
    clash = second.get_by_role("dialog", name="Changed while you were at it")
    expect(clash.get_by_role("radio", name="place: yours, Tower, floor 3")).to_be_checked()
    expect(clash.get_by_role("radio", name="note: theirs, guard bolts are M10")).to_be_checked()
    clash.get_by_role("button", name="Keep mine in 1 field").click()
    expect(second.get_by_role("dialog", name=slip)).to_have_count(0)
    first.reload()
    first.get_by_role("button", name=slip).click()
    expect(first.get_by_label("Where it stands")).to_have_value("Tower, floor 3")
    expect(first.get_by_label("Note")).to_have_value("guard bolts are M10")

    first.goto(f"{address}/bench/size")
    first.locator("#f-power").fill("3 hp")
    first.locator("#what-if-name").fill("spare blower")
    first.get_by_role("button", name="Keep", exact=True).click()
    for page, field, text in ((first, "power", "4 hp"), (second, "driver_speed", "1160")):
        page.goto(f"{address}/bench/size")
        page.get_by_role("button", name=re.compile("^spare blower")).click()
        expect(page.locator("#f-power")).to_have_value("3 hp")
        page.locator(f"#f-{field}").fill(text)
    first.get_by_role("button", name="Keep it again").click()
    expect(first.get_by_text("Kept as “spare blower”.")).to_be_visible()
    second.get_by_role("button", name="Keep it again").click()
    clash = second.get_by_role("dialog", name="Changed while you were at it")
    expect(clash.get_by_role("radio", name="power: theirs, 4 hp")).to_be_checked()
    expect(clash.get_by_role("radio", name="driver speed: yours, 1160 rpm")).to_be_checked()
    clash.get_by_role("button", name="Keep mine in 1 field").click()
    expect(second.get_by_text("Kept as “spare blower”.")).to_be_visible()
    expect(second.locator("#f-power")).to_have_value("4 hp")
    expect(second.locator("#f-driver_speed")).to_have_value("1160")
