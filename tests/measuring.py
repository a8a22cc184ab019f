"""Measures the distance between two files with outside programs."""

import argparse

from bench.tools.geomdiff import compare


def measure(first, second, *, dpi, size_b=None, align=False):
    """Return what geomdiff finds between two files, in mm; `align` takes out a shift."""
    options = argparse.Namespace(
        dpi=dpi,
        ink="alpha",
        align=align,
        overlay=None,
        render_a=None,
        render_b=None,
        size_a=None,
        size_b=size_b,
        origin_a="0,0",
        origin_b="0,0",
    )
    return compare(first, second, options)
