"""Millimetres, points, pixels: one length comes in, the same length in another unit goes out."""

MM_PER_INCH = 25.4
POINTS_PER_INCH = 72.0


def mm_to_points(length_mm: float) -> float:
    """Return the length in PostScript points (1/72 inch, ISO 32000-2 section 8.3.2.3)."""
    return length_mm * POINTS_PER_INCH / MM_PER_INCH


def pixels_at(length_mm: float, dpi: float) -> int:
    """Return how many whole pixels a length takes at a resolution; at least one."""
    return max(1, round(length_mm / MM_PER_INCH * dpi))


def dpi_of(pixels: float, length_mm: float) -> float:
    """Return the resolution of `pixels` spread over a length, in dots per inch."""
    return pixels / length_mm * MM_PER_INCH


def plain_number(value: float, places: int = 4) -> str:
    """Write a number in the one canonical way: at most `places` decimals, no exponent, no trailing zeros, no -0."""
    text = f"{value:.{places}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text in {"-0", ""} else text
