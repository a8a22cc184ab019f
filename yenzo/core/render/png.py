"""PNG: a page and a resolution come in; a picture with transparency and its density set goes out.

It is drawn from our own PDF, so that it can't differ from it by more than its pixels.
"""

import io
import struct
import threading
import zlib
from collections.abc import Iterator
from contextlib import contextmanager

import numpy as np
import pypdfium2
import pypdfium2.raw as pdfium
from PIL import Image
from PIL.PngImagePlugin import PngInfo

from yenzo.core.documents.assets import Assets
from yenzo.core.errors import RenderError
from yenzo.core.measure import MM_PER_INCH, POINTS_PER_INCH, pixels_at
from yenzo.core.render.page import Page
from yenzo.core.render.pdf import render_pdf

# Above this a picture is drawn and written band by band, so that it never is in memory as a whole.
BAND_PIXELS = 24_000_000
WHOLE_PIXELS = 100_000_000
# Four gigapixels: more is no picture but a mistake in the set-up.
MOST_PIXELS = 4_000_000_000
NO_COMPRESSION, FAST_COMPRESSION = 0, 1
# zlib's Z_RLE: on pictures that are mostly one color it is both faster and smaller than its default.
RUN_LENGTHS = 3
# That colors are sRGB, and how they are meant (ISO/IEC 15948, 11.3.2.5).
PERCEPTUAL = b"\x00"
SIGNATURE = b"\x89PNG\r\n\x1a\n"
MM_PER_METRE = 1000.0
# pdfium is not made for threads, and web processes have some.
_ONE_AT_A_TIME = threading.Lock()


def render_png(page: Page, assets: Assets, dpi: float) -> bytes:
    """Return the page as a PNG file; raises RenderError above four gigapixels."""
    width, height = _size(page, dpi)
    output = io.BytesIO()
    if width * height > WHOLE_PIXELS:
        _write_bands(page, assets, dpi, output)
    else:
        picture = rasterize(page, assets, dpi)
        said = PngInfo()
        said.add(b"sRGB", PERCEPTUAL)
        picture.save(
            output, "PNG", dpi=(dpi, dpi), compress_level=FAST_COMPRESSION, compress_type=RUN_LENGTHS, pnginfo=said
        )
    return output.getvalue()


def rasterize(page: Page, assets: Assets, dpi: float) -> Image.Image:
    """Return the page as RGBA pixels."""
    width, height = _size(page, dpi)
    with _opened(page, assets) as opened:
        return _draw(opened, (0, 0, width, height), dpi)


def _size(page: Page, dpi: float) -> tuple[int, int]:
    width, height = pixels_at(page.width_mm, dpi), pixels_at(page.height_mm, dpi)
    if width * height > MOST_PIXELS:
        size = f"{page.width_mm:.0f} × {page.height_mm:.0f} mm at {dpi:g} dpi"
        raise RenderError("too_large", "png", f"A PNG of {size} is too large; choose a lower resolution for the area.")
    return width, height


@contextmanager
def _opened(page: Page, assets: Assets) -> Iterator[pypdfium2.PdfPage]:
    pdf = render_pdf(page, assets, compression=NO_COMPRESSION, bends_rectangles=True)
    with _ONE_AT_A_TIME:
        document = pypdfium2.PdfDocument(pdf)
        try:
            yield document[0]
        finally:
            document.close()


def _write_bands(page: Page, assets: Assets, dpi: float, output: io.BytesIO) -> None:
    """Write a PNG (ISO/IEC 15948) whose rows are drawn and packed a band at a time, each unfiltered."""
    width, height = _size(page, dpi)
    rows = max(1, BAND_PIXELS // width)
    output.write(SIGNATURE)
    _write_chunk(output, b"IHDR", struct.pack(">IIBBBBB", width, height, 8, 6, 0, 0, 0))
    _write_chunk(output, b"sRGB", PERCEPTUAL)
    density = round(dpi / MM_PER_INCH * MM_PER_METRE)
    _write_chunk(output, b"pHYs", struct.pack(">IIB", density, density, 1))
    packer = zlib.compressobj(FAST_COMPRESSION, strategy=RUN_LENGTHS)
    with _opened(page, assets) as opened:
        for top in range(0, height, rows):
            band = _draw(opened, (0, top, width, min(rows, height - top)), dpi)
            pixels = np.asarray(band).reshape(band.height, width * 4)
            unfiltered = np.zeros((band.height, 1), dtype=np.uint8)
            packed = packer.compress(np.hstack([unfiltered, pixels]).tobytes())
            if packed:
                _write_chunk(output, b"IDAT", packed)
    _write_chunk(output, b"IDAT", packer.flush())
    _write_chunk(output, b"IEND", b"")


def _write_chunk(output: io.BytesIO, kind: bytes, data: bytes) -> None:
    output.write(struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data)))


def _draw(page: pypdfium2.PdfPage, window: tuple[int, int, int, int], dpi: float) -> Image.Image:
    """Return a window of the page (left, top, width, height in pixels)."""
    left, top, width, height = window
    bitmap = pypdfium2.PdfBitmap.new_native(width, height, pdfium.FPDFBitmap_BGRA)
    try:
        bitmap.fill_rect((0, 0, 0, 0), 0, 0, width, height)
        # Drawn at the exact scale: pdfium's own page rendering would stretch the page to whole pixels.
        scale = dpi / POINTS_PER_INCH
        matrix = pdfium.FS_MATRIX(scale, 0, 0, scale, -left, -top)
        clip = pdfium.FS_RECTF(0, 0, width, height)
        pdfium.FPDF_RenderPageBitmapWithMatrix(bitmap, page, matrix, clip, pdfium.FPDF_ANNOT)
        picture: Image.Image = bitmap.to_pil().copy()
        return picture
    finally:
        bitmap.close()
