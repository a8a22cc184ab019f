"""PNG: a page and a resolution come in; a picture with transparency and its density set goes out.

It is drawn from our own PDF, so that it can't differ from it by more than its pixels.
"""

import io
import threading

import pypdfium2
import pypdfium2.raw as pdfium
from PIL import Image

from yenzo.core.documents.assets import Assets
from yenzo.core.errors import RenderError
from yenzo.core.measure import POINTS_PER_INCH, pixels_at
from yenzo.core.render.page import Page
from yenzo.core.render.pdf import render_pdf

MOST_PIXELS = 100_000_000
NO_COMPRESSION, FAST_COMPRESSION = 0, 1
# zlib's Z_RLE: on pictures that are mostly one color it is both faster and smaller than its default.
RUN_LENGTHS = 3
# pdfium is not made for threads, and web processes have some.
_ONE_AT_A_TIME = threading.Lock()


def render_png(page: Page, assets: Assets, dpi: float) -> bytes:
    """Return the page as a PNG file; raises RenderError above a hundred megapixels."""
    output = io.BytesIO()
    picture = rasterize(page, assets, dpi)
    picture.save(output, "PNG", dpi=(dpi, dpi), compress_level=FAST_COMPRESSION, compress_type=RUN_LENGTHS)
    return output.getvalue()


def rasterize(page: Page, assets: Assets, dpi: float) -> Image.Image:
    """Return the page as RGBA pixels."""
    width, height = pixels_at(page.width_mm, dpi), pixels_at(page.height_mm, dpi)
    if width * height > MOST_PIXELS:
        size = f"{page.width_mm:.0f} × {page.height_mm:.0f} mm at {dpi:g} dpi"
        raise RenderError("too_large", "png", f"A PNG of {size} is too large; choose a lower resolution for the area.")
    pdf = render_pdf(page, assets, compression=NO_COMPRESSION)
    with _ONE_AT_A_TIME:
        document = pypdfium2.PdfDocument(pdf)
        try:
            return _draw(document[0], width, height, dpi)
        finally:
            document.close()


def _draw(page: pypdfium2.PdfPage, width: int, height: int, dpi: float) -> Image.Image:
    bitmap = pypdfium2.PdfBitmap.new_native(width, height, pdfium.FPDFBitmap_BGRA)
    try:
        bitmap.fill_rect((0, 0, 0, 0), 0, 0, width, height)
        # Drawn at the exact scale: pdfium's own page rendering would stretch the page to whole pixels.
        scale = dpi / POINTS_PER_INCH
        matrix = pdfium.FS_MATRIX(scale, 0, 0, scale, 0, 0)
        clip = pdfium.FS_RECTF(0, 0, width, height)
        pdfium.FPDF_RenderPageBitmapWithMatrix(bitmap, page, matrix, clip, pdfium.FPDF_ANNOT)
        picture: Image.Image = bitmap.to_pil().copy()
        return picture
    finally:
        bitmap.close()
