"""The real interface against the real server and database, in Debian's Chromium."""

import os
import socket
import urllib.request
from collections.abc import Iterator
from contextlib import suppress
from typing import Any
from urllib.parse import urlsplit

import psycopg
import pytest
from playwright.sync_api import Browser, Page, expect

from tests.conftest import SECRET, database
from tests.running import PATIENCE_S, gunicorn, until
from tuyere.upkeep.prepare import prepare

PATIENCE_MS = 1000 * PATIENCE_S  # one limit for all that is waited for
expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser_type_launch_args() -> dict[str, Any]:
    flags = [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        "--no-first-run",
    ]
    return {"executable_path": os.environ.get("TUYERE_CHROMIUM", "/usr/bin/chromium"), "args": flags}


@pytest.fixture(scope="session")
def pristine() -> tuple[str, str]:
    """The URL to serve a demo database of its own by; and that database's name, as it was before the first test."""
    owner_url = database("tuyere_test_browser", "demo")
    url = prepare(owner_url, SECRET, demo=True)
    return url, database("tuyere_test_pristine", owner_url.rpartition("/")[2]).rpartition("/")[2]


@pytest.fixture(autouse=True)
def own_database(pristine: tuple[str, str]) -> None:
    """Each test on the plant as it was loaded, under a server that stays up."""
    owner_url = database("tuyere_test_browser", pristine[1])
    with psycopg.connect(owner_url, autocommit=True) as owner:  # who may connect is no part of a template
        owner.execute(f"GRANT CONNECT ON DATABASE {urlsplit(owner_url).path.strip('/')} TO {urlsplit(pristine[0]).username}")  # type: ignore[call-overload]


@pytest.fixture(scope="session")
def served(pristine: tuple[str, str]) -> Iterator[str]:
    """A server of its own."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    environment = {
        "DATABASE_URL": pristine[0],
        "TUYERE_SECRET_KEY": SECRET,
        "TUYERE_DEMO": "1",
        "TUYERE_PLANT": "browser",
        "TUYERE_BIND": f"127.0.0.1:{port}",
        "OPENBLAS_NUM_THREADS": "1",
        "TUYERE_RECORD_PROCESSES": "2",
        "TUYERE_CALCULATION_PROCESSES": "1",
        "TUYERE_SEARCH_PROCESSES": "1",
    }
    address = f"http://127.0.0.1:{port}"

    def up() -> bool:
        with suppress(OSError):
            urllib.request.urlopen(f"{address}/api/health", timeout=5).close()
            return True
        return False

    with gunicorn(environment):
        until(up)
        yield address


@pytest.fixture
def address(served: str, own_database: None) -> str:
    """Where it is served, on a database of the test's own."""
    return served


@pytest.fixture
def open_as(address: str, browser: Browser) -> Iterator[Any]:
    """Open the application as a demo person; any console error, CSP breach or script error fails the test."""
    trouble: list[str] = []
    contexts = []

    def enter(name: str, width: int = 1280, height: int = 800, touch: bool = False) -> Page:
        context = browser.new_context(
            viewport={"width": width, "height": height}, has_touch=touch, is_mobile=touch, base_url=address, reduced_motion="reduce"
        )
        context.set_default_timeout(PATIENCE_MS)
        contexts.append(context)
        page = context.new_page()
        page.on("pageerror", lambda error: trouble.append(str(error)))
        page.on(
            "console",
            lambda message: (
                trouble.append(message.text) if message.type == "error" and "Failed to load resource" not in message.text else None
            ),
        )
        page.goto("/")
        page.get_by_role("button", name=name).click()
        expect(page.get_by_role("heading", name="Sallowfield Maltings")).to_be_visible()
        return page

    yield enter
    for context in contexts:
        context.close()
    assert not trouble


def hop(page: Page, path: str) -> None:
    """To another page of the application without loading it anew, as its own links go."""
    page.evaluate("to => { history.pushState({}, '', to); dispatchEvent(new PopStateEvent('popstate')) }", path)


def open_drive(page: Page, machine: str, station: str = "Survey") -> None:
    """From Floor to a station of a machine's drive."""
    page.locator("a.drive").filter(has_text=machine).click()
    tab = page.get_by_role("navigation", name="Stations").get_by_role("link", name=station)
    tab.click()
    expect(tab).to_have_attribute("aria-current", "step")
