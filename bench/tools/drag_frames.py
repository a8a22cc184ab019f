#!/usr/bin/env python3
"""Usage: drag_frames.py URL ITEM_CSS [--click TEXT] [--sign-in NAME PASSWORD] [--back] [--cpu 4] [-n 20] [--warm 4]
Drags ITEM N times with the real mouse on a page slowed down --cpu times, and prints as JSON: frames_ms (p50, p95, max of the time from
one animation frame to the next while the hand is down), released_ms (from the button's release until the changed markup was painted),
and requests (how many were sent while the hand was down).  --click presses the button of that name first; --back lets
go where it was taken, so that nothing changes and no release is measured.  The first --warm drags aren't counted."""
import argparse
import json
import statistics
from urllib.parse import urljoin

from playwright.sync_api import sync_playwright

ARGS = ["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--no-first-run"]
WATCH = """item => { const w = window.watched = { frames: [], last: 0, released: [], on: false };
  const tick = now => { if (w.on && w.last) w.frames.push(now - w.last); w.last = w.on ? now : 0; requestAnimationFrame(tick); };
  requestAnimationFrame(tick);
  document.addEventListener("pointerup", event => { const begun = event.timeStamp; w.on = false;
    const seen = new MutationObserver(list => { if (!list.some(one => one.type === "childList" && one.target.id?.startsWith("ink-"))) return;
      seen.disconnect(); requestAnimationFrame(() => { const c = new MessageChannel(); c.port1.onmessage = () => w.released.push(performance.now() - begun); c.port2.postMessage(0); }); });
    const stage = document.querySelector(".stage"); if (stage) seen.observe(stage, { childList: true, subtree: true }); }, true); }"""


def p95(values):
    return statistics.quantiles(values, n=20)[-1] if len(values) > 1 else None


def main():
    ask = argparse.ArgumentParser(description=__doc__)
    ask.add_argument("url")
    ask.add_argument("item")
    ask.add_argument("--click")
    ask.add_argument("--sign-in", nargs=2)
    ask.add_argument("--back", action="store_true")
    ask.add_argument("--cpu", type=float, default=4)
    ask.add_argument("-n", type=int, default=20)
    ask.add_argument("--warm", type=int, default=4)
    told = ask.parse_args()
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium-headless-shell", args=ARGS)
        page = browser.new_context(viewport={"width": 1280, "height": 900}, bypass_csp=True).new_page()
        if told.sign_in:
            page.goto(urljoin(told.url, "/workshop/sign-in/"))
            page.fill("[name=username]", told.sign_in[0])
            page.fill("[name=password]", told.sign_in[1])
            page.get_by_role("button", name="Sign in").click()
            page.wait_for_url(lambda url: "sign-in" not in url)
        page.goto(told.url)
        if told.click:
            page.get_by_role("button", name=told.click).click()
        page.wait_for_selector(told.item)
        page.wait_for_timeout(1500)
        page.evaluate(WATCH, told.item)
        page.context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": told.cpu})
        sent, is_down = [], False
        page.on("request", lambda request: sent.append(request.url) if is_down and "preview" in request.url else None)
        for number in range(told.n + told.warm):
            if number == told.warm:
                page.evaluate("window.watched.frames = []")
            page.wait_for_selector(told.item)
            box = page.locator(told.item).first.bounding_box()
            x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
            page.mouse.move(x, y)
            page.mouse.down()
            is_down = True
            page.evaluate("window.watched.on = true")
            for step in range(24):
                far = 8 if told.back else 1
                page.mouse.move(x + far * (step % 6) * (1 if number % 2 else -1), y + far * (step % 5))
                page.evaluate("() => new Promise(requestAnimationFrame)")
            is_down = False
            if told.back:
                page.mouse.move(x, y)
                page.mouse.up()
                page.wait_for_timeout(200)
                continue
            page.mouse.up()
            page.wait_for_timeout(200)
            page.wait_for_function("n => window.watched.released.length >= n", arg=number + 1, timeout=20000)
            page.wait_for_timeout(300)
        found = page.evaluate("window.watched")
        browser.close()
    frames, released = found["frames"], found["released"][told.warm :]
    print(json.dumps({
        "frames_ms": {"n": len(frames), "p50": statistics.median(frames), "p95": p95(frames), "max": max(frames)},
        "released_ms": {"n": len(released), "p50": statistics.median(released or [0]), "p95": p95(released)},
        "requests": len(sent),
    }))


if __name__ == "__main__":
    main()
