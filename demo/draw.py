"""Draws the demo's goods: the SVGs of demo/art come in, the PNGs of demo/products go out.

Run once by whoever changes the art (`python -m demo.draw`); the pictures are kept in the repository.
"""

import tempfile
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, sync_playwright

from yenzo.core.artwork.tinting import tinted_part

HERE = Path(__file__).parent
CLOTHS = {"navy": ("#2d4763", "#e9e2d0"), "sand": ("#d9c9a6", "#2d4763"), "signal": ("#b5452f", "#f0e8d8")}
BANDS = {"red": "#a63a2c", "sand": "#c9b078"}
PENNANTS = {"signal": "#b8432e", "deep": "#24425f"}
LIDS = {
    "lid": (
        "metal",
        ".5",
        (
            '<g fill="none" stroke="#5a3c0d" stroke-opacity=".45">'
            '<circle cx="550" cy="600" r="436" stroke-width="2.5"/>'
            '<circle cx="550" cy="600" r="428" stroke-width="1.2"/></g>'
        ),
    ),
    "inside": (
        "satin",
        ".8",
        (
            '<circle cx="550" cy="600" r="470" fill="url(#well)"/>'
            '<path d="M508 1066q42 22 84 0v30q-42 22-84 0z" fill="url(#rim)" stroke="#5a3c0d" stroke-width="2"/>'
        ),
    ),
}
TAGS = {
    "front": "",
    "back": '<rect x="424" y="300" width="24" height="34" fill="#1b6f6a" stroke="#0f3f3c" stroke-width=".8"/>'
    '<path d="M428 317h16M428 322h16" stroke="#f8f5ee" stroke-width="1.4"/>',
}
BACK = (
    '<g fill="none"><path d="M24 330C150 338 300 338 426 330" stroke="#000" stroke-opacity=".3" stroke-width="4"/>'
    '<path d="M24 332.5C150 340.5 300 340.5 426 332.5" stroke="#fff" stroke-opacity=".35" stroke-width="1.2"/>'
    '<path d="M60 334C160 341 290 341 390 334" stroke="#c8a24b" stroke-width="1.8" stroke-dasharray="1.6 1.4"/></g>'
    '<rect x="384" y="329" width="13" height="7.5" rx="2" fill="#d8b45a" stroke="#5d430f" stroke-width=".7"/>'
)


def corner(x: float, y: float) -> str:
    """Return a brass eyelet."""
    return (
        f'<circle cx="{x}" cy="{y}" r="6" fill="#cfa64c" stroke="#5d430f" stroke-width=".8"/>'
        f'<circle cx="{x - 1.2}" cy="{y - 1.4}" r="4.2" fill="none" stroke="#fff1c4" stroke-width="1"/>'
        f'<circle cx="{x}" cy="{y}" r="2.9" fill="#2b2a26"/>'
    )


def draw(page: Page, svg: str, size: tuple[int, int], to: Path) -> None:
    """Render one SVG with a transparent ground."""
    to.parent.mkdir(parents=True, exist_ok=True)
    page.set_viewport_size({"width": size[0], "height": size[1]})
    page.set_content(f"<style>html,body{{margin:0;background:transparent}}svg{{display:block}}</style>{svg}")
    page.screenshot(path=to, omit_background=True)


def main() -> None:
    """Draw all goods."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox"])
        page = browser.new_page()
        board = (HERE / "art" / "nameboard.svg").read_text()
        draw(page, board, (1400, 440), HERE / "products" / "cedar-nameboard" / "assets" / "front.png")
        slate = (HERE / "art" / "slate.svg").read_text()
        draw(page, slate, (1280, 960), HERE / "products" / "slate-sign" / "assets" / "front.png")
        bell = (HERE / "art" / "bell.svg").read_text()
        draw(page, bell, (1200, 1300), HERE / "products" / "ships-bell" / "assets" / "front.png")
        harbor_pass = (HERE / "art" / "pass.svg").read_text()
        draw(page, harbor_pass, (1100, 760), HERE / "products" / "harbor-pass" / "assets" / "card.png")
        windbreak = (HERE / "art" / "windbreak.svg").read_text()
        front = HERE / "products" / "windbreak" / "assets" / "front.png"
        draw(page, windbreak, (1300, 780), front)
        with tempfile.TemporaryDirectory() as folder:
            mask = Path(folder) / "mask.png"
            draw(page, (HERE / "art" / "windbreak-bands.svg").read_text(), (1300, 780), mask)
            for name, color in BANDS.items():
                tinted = tinted_part(front.read_bytes(), mask.read_bytes(), color)
                (front.parent / f"bands-{name}.png").write_bytes(tinted)
        key_float = HERE / "products" / "key-float" / "assets"
        draw(page, (HERE / "art" / "key-float.svg").read_text(), (1200, 720), key_float / "front.png")
        patch = (HERE / "art" / "patch.svg").read_text()
        draw(page, patch, (1100, 800), HERE / "products" / "crew-patches" / "assets" / "front.png")
        compass = (HERE / "art" / "compass.svg").read_text()
        for side, (face, sheen, inside) in LIDS.items():
            svg = compass.replace("FACE", face).replace("SHEEN", sheen).replace("INSIDE", inside)
            draw(page, svg, (1100, 1160), HERE / "products" / "brass-compass" / "assets" / f"{side}.png")
        clock, harbor = HERE / "products" / "tide-clock", (HERE / "art" / "photo.svg").read_text()
        draw(page, (HERE / "art" / "clock.svg").read_text(), (1200, 1200), clock / "assets" / "front.png")
        larger = harbor.replace('width="560" height="560"', 'width="1100" height="1100"', 1)
        draw(page, larger, (1100, 1100), clock / "entries" / "assets" / "harbor-evening.png")
        sample = Image.open(clock / "entries" / "assets" / "harbor-evening.png").convert("RGB")
        sample.save(clock / "assets" / "sample-harbor.jpg", quality=82)
        tote = (HERE / "art" / "tote.svg").read_text()
        for side, tag in TAGS.items():
            to = HERE / "products" / "canvas-tote" / "assets" / f"{side}.png"
            draw(page, tote.replace("TAG", tag), (1000, 1180), to)
        pennant = (HERE / "art" / "pennant.svg").read_text()
        for name, cloth in PENNANTS.items():
            to = HERE / "products" / "burgee-pennant" / "assets" / f"flag-{name}.png"
            draw(page, pennant.replace("CLOTH", cloth), (1320, 840), to)
        cushion = (HERE / "art" / "cushion.svg").read_text()
        corners = "".join(corner(x, y) for x, y in ((42, 40), (408, 40), (42, 410), (408, 410)))
        for name, (cloth, piping) in CLOTHS.items():
            for side, back in (("front", ""), ("reverse", BACK)):
                svg = cushion.replace("CLOTH", cloth).replace("PIPING", piping)
                svg = svg.replace("BACK", back).replace("CORNERS", corners)
                to = HERE / "products" / "deck-cushion" / "assets" / f"{side}-{name}.png"
                draw(page, svg, (800, 800), to)
        uploads = HERE / "products" / "deck-cushion" / "entries" / "assets"
        draw(page, (HERE / "art" / "emblem.svg").read_text(), (1600, 1600), uploads / "tern-emblem.png")
        draw(page, (HERE / "art" / "photo.svg").read_text(), (560, 560), uploads / "evening-sail.png")
        browser.close()


if __name__ == "__main__":
    main()
