"""Typing the power of a drive to choose: how long from the key to the new list, browser included.

Run against a server that is up with the demo plant, on loopback:
    .venv/bin/python -m bench.selection_redraw [http://127.0.0.1:8640]
Nothing is kept on the record. Prints percentiles in ms, and the median redraw over a plain fetch of the same answer.
"""

import os
import shutil
import sys
from statistics import median

from bench.live_redraw import percentile
from playwright.sync_api import sync_playwright

KEYS = 60
WATCH = """
() => {
  window.redraws = [];
  const list = () => document.querySelector('.drives tbody')?.innerText;
  let before = list(), typed = 0;
  document.querySelector('#f-power').addEventListener('input', () => { typed = performance.now(); before = list(); }, true);
  const look = () => {
    const now = list();
    if (typed && now !== before) { window.redraws.push(performance.now() - typed); typed = 0; }
    requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}
"""
FETCH = """
async () => {
  const text = (t) => ({ text: t, unit: '' });
  const size = { quantities: { power: text('30 hp'), driver_speed: text('1765'), driven_speed: text('2600'), centre_low: text('26'), centre_high: text('30') },
    words: { driven_class: 'heavy' } };
  const { csrf_token: token } = await (await fetch('/api/session')).json();
  const times = [];
  for (let i = 0; i < 40; i++) {
    const t = performance.now();
    await (await fetch('/api/calc/size', { method: 'POST', headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token }, body: JSON.stringify({ size }) })).json();
    times.push(performance.now() - t);
  }
  return times;
}
"""


def main(address: str) -> int:
    chromium = os.environ.get("TUYERE_CHROMIUM") or shutil.which("chromium")
    with sync_playwright() as playwright:
        flags = ["--no-sandbox", "--disable-gpu", "--disable-background-networking"]
        browser = playwright.chromium.launch(executable_path=chromium, args=flags)
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(address)
        page.get_by_role("button", name="Tobias").click()
        page.locator("a.drive").first.wait_for()
        page.goto(f"{address}/bench/size")
        typed = {"power": "30 hp", "driver_speed": "1765", "driven_speed": "2600", "centre_low": "26", "centre_high": "30"}
        for key, text in typed.items():
            page.locator(f"#f-{key}").fill(text)
        page.locator("#f-driven_class").select_option("heavy")
        page.wait_for_selector("[data-drive]")
        page.wait_for_timeout(800)
        page.evaluate(WATCH)
        for i in range(KEYS):
            page.locator("#f-power").fill(f"{20 + i % 19} hp")
            page.wait_for_timeout(700)
        redraws = page.evaluate("window.redraws")
        fetches = page.evaluate(FETCH)
        browser.close()
    print(f"{len(redraws)} of {KEYS} keys redrawn")
    print(f"key to new list: median {median(redraws):.0f} ms, 95th percentile {percentile(redraws, 95):.0f} ms")
    print(f"plain fetch of the answer: median {median(fetches):.0f} ms, 95th percentile {percentile(fetches, 95):.0f} ms")
    print(f"median redraw / median fetch: {median(redraws) / median(fetches):.1f}")
    return 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1] if len(sys.argv) > 1 else "http://127.0.0.1:8640"))
