"""PDF: a page comes in; a true-size file of outlines and pictures, without live fonts, goes out.

Page boxes by ISO 32000-2 section 14.11.2: media and bleed box are the page, the trim box is where the goods end.
The file carries no dates and an id made from its content, so the same page gives the same bytes.
"""

import io
import zlib

import pikepdf
from PIL import Image

from yenzo.core.documents.assets import Assets
from yenzo.core.measure import mm_to_points, plain_number
from yenzo.core.render.page import Page, paint_page
from yenzo.core.render.pictures import open_picture
from yenzo.core.scene.nodes import Paint
from yenzo.core.shapes.box import Box
from yenzo.core.shapes.matrix import Matrix
from yenzo.core.shapes.outline import Outline

OPERATORS = {"M": "m", "L": "l", "C": "c", "Z": "h"}
FAST_COMPRESSION = 1


def render_pdf(page: Page, assets: Assets, *, compression: int = FAST_COMPRESSION) -> bytes:
    """Return the page as a PDF file; `compression` is zlib's level for its pictures."""
    pdf = pikepdf.new()
    canvas = _PdfCanvas(pdf, page.height_mm, assets, compression)
    paint_page(page, canvas)
    width, height = mm_to_points(page.width_mm), mm_to_points(page.height_mm)
    trim = page.trim
    whole = _numbers(0, 0, width, height)
    trimmed = _numbers(
        mm_to_points(trim.left),
        height - mm_to_points(trim.bottom),
        mm_to_points(trim.right),
        height - mm_to_points(trim.top),
    )
    pdf.pages.append(
        pikepdf.Page(
            pikepdf.Dictionary(
                Type=pikepdf.Name.Page,
                MediaBox=whole,
                BleedBox=whole,
                TrimBox=trimmed,
                Resources=pikepdf.Dictionary(XObject=pikepdf.Dictionary(canvas.pictures)),
                Contents=pdf.make_stream(canvas.content()),
            )
        )
    )
    pdf.pages[0].obj.Parent = pdf.Root.Pages
    output = io.BytesIO()
    pdf.save(output, deterministic_id=True, object_stream_mode=pikepdf.ObjectStreamMode.disable)
    return output.getvalue()


class _PdfCanvas:
    def __init__(self, pdf: pikepdf.Pdf, height_mm: float, assets: Assets, compression: int) -> None:
        k = mm_to_points(1)
        self._pdf = pdf
        self._assets = assets
        self._compression = compression
        self._parts = [f"{k:.8f} 0 0 {-k:.8f} 0 {mm_to_points(height_mm):.6f} cm"]
        self.pictures: dict[str, pikepdf.Object] = {}

    def fill(self, outline: Outline, paint: Paint) -> None:
        if not outline:
            return
        red, green, blue = (plain_number(int(paint.screen[at : at + 2], 16) / 255) for at in (1, 3, 5))
        self._parts.append(f"{red} {green} {blue} rg")
        for verb, numbers in outline.steps():
            written = " ".join(plain_number(value) for value in numbers)
            self._parts.append(f"{written} {OPERATORS[verb]}".lstrip())
        self._parts.append("f")

    def picture(self, asset: str, matrix: Matrix, clip: Box) -> None:
        name = f"/P{asset[:16]}"
        if name not in self.pictures:
            picture = open_picture(self._assets.read(asset), asset)
            self.pictures[name] = _picture_object(self._pdf, picture, self._compression)
        box = " ".join(plain_number(value) for value in (clip.left, clip.top, clip.width, clip.height))
        # An image's own square has y up: turn it over before placing it.
        numbers = " ".join(plain_number(value, 6) for value in Matrix(1, 0, 0, -1, 0, 1).then(matrix))
        self._parts.append(f"q {box} re W n {numbers} cm {name} Do Q")

    def content(self) -> bytes:
        return "\n".join(self._parts).encode()


def _picture_object(pdf: pikepdf.Pdf, picture: Image.Image, compression: int) -> pikepdf.Object:
    has_alpha = "A" in picture.getbands() or "transparency" in picture.info
    color = picture.convert("RGBA" if has_alpha else "RGB")
    stream = _pixels(pdf, color.convert("RGB"), pikepdf.Name.DeviceRGB, compression)
    if has_alpha:
        stream.SMask = _pixels(pdf, color.getchannel("A"), pikepdf.Name.DeviceGray, compression)
    return stream


def _pixels(pdf: pikepdf.Pdf, picture: Image.Image, color_space: pikepdf.Name, compression: int) -> pikepdf.Stream:
    stream = pikepdf.Stream(pdf, zlib.compress(picture.tobytes(), compression))
    stream.stream_dict = pikepdf.Dictionary(
        Type=pikepdf.Name.XObject,
        Subtype=pikepdf.Name.Image,
        Width=picture.width,
        Height=picture.height,
        ColorSpace=color_space,
        BitsPerComponent=8,
        Filter=pikepdf.Name.FlateDecode,
    )
    return pdf.make_indirect(stream)


def _numbers(*values: float) -> pikepdf.Array:
    return pikepdf.Array([pikepdf.Object.parse(plain_number(value, 6).encode()) for value in values])
