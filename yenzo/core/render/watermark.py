"""The workshop's mark over a picture that is shown to others: a PNG and words come in, a PNG goes out."""

import io
from pathlib import Path

from PIL import Image, ImageDraw, ImageFont

FONT = Path(__file__).resolve().parent.parent / "planning" / "fonts" / "ticket-text.ttf"
# Of the picture's width: the letters, and how far apart the words are repeated.
LETTERS, APART = 0.035, 0.33
TURN_DEG, OPACITY = 28, 70


def watermarked(data: bytes, words: str) -> bytes:
    """Return a picture with words across it again and again, see-through, so that it is known for a look."""
    picture = Image.open(io.BytesIO(data), formats=("PNG",)).convert("RGBA")
    wide, high = picture.size
    size = max(12, round(wide * LETTERS))
    font = ImageFont.truetype(FONT, size)
    edge = wide + high
    marks = Image.new("RGBA", (edge, edge), (0, 0, 0, 0))
    draw = ImageDraw.Draw(marks)
    step_x, step_y = round(draw.textlength(words, font)) + size * 4, round(wide * APART / 2)
    for row, top in enumerate(range(0, edge, max(step_y, 1))):
        for left in range(-(row % 2) * step_x // 2, edge, step_x):
            # Light and dark, so that it is seen on any goods.
            draw.text((left + 1, top + 1), words, font=font, fill=(255, 255, 255, OPACITY))
            draw.text((left, top), words, font=font, fill=(22, 48, 58, OPACITY))
    turned = marks.rotate(TURN_DEG, resample=Image.Resampling.BICUBIC)
    left, top = (edge - wide) // 2, (edge - high) // 2
    shown = Image.alpha_composite(picture, turned.crop((left, top, left + wide, top + high)))
    written = io.BytesIO()
    white = Image.new("RGBA", picture.size, "white")
    Image.alpha_composite(white, shown).convert("RGB").save(written, "PNG", compress_level=1)
    return written.getvalue()
