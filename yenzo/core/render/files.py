"""One door to the back-ends: a page and a format's name come in, a file's bytes go out."""

from yenzo.core.documents.assets import Assets
from yenzo.core.errors import RenderError
from yenzo.core.render.dxf import render_dxf
from yenzo.core.render.page import Page
from yenzo.core.render.pdf import SCREEN_COLORS, PdfColors, render_pdf
from yenzo.core.render.png import render_png
from yenzo.core.render.svg import render_svg

FORMATS = ("svg", "png", "pdf", "dxf")


def render_file(
    page: Page, assets: Assets, file_format: str, *, dpi: float, colors: PdfColors = SCREEN_COLORS
) -> bytes:
    """Return the page as a file; raises RenderError for a format that can't be made. `colors` are PDF's alone."""
    match file_format:
        case "svg":
            return render_svg(page, assets)
        case "pdf":
            return render_pdf(page, assets, colors=colors)
        case "png":
            return render_png(page, assets, dpi)
        case "dxf":
            return render_dxf(page)
        case _:
            can = ", ".join(FORMATS)
            message = f"Files of the format “{file_format}” can't be made. These can: {can}."
            raise RenderError("format_unknown", file_format, message)
