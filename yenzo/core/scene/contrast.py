"""Contrast: two colors come in, how much they differ in lightness goes out (WCAG 2.2)."""


def contrast_of(first: str, second: str) -> float:
    """Return the contrast of two colors written #rrggbb (WCAG 2.2, contrast ratio)."""
    light, dark = sorted((luminance(first), luminance(second)), reverse=True)
    return (light + 0.05) / (dark + 0.05)


def luminance(color: str) -> float:
    """Return how light a color written #rrggbb is, from 0 to 1 (WCAG 2.2, relative luminance)."""
    shares = [int(color[at : at + 2], 16) / 255 for at in (1, 3, 5)]
    red, green, blue = (share / 12.92 if share <= 0.04045 else ((share + 0.055) / 1.055) ** 2.4 for share in shares)
    return 0.2126 * red + 0.7152 * green + 0.0722 * blue
