"""Numbers in attributes: a text comes in, the finite numbers that it begins with go out."""

import math
import re

NUMBER = re.compile(r"[-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?")


def first_numbers(text: str) -> list[float]:
    """Return the numbers of a text, whatever stands between them; none that is beyond all bounds."""
    found = (float(number) for number in NUMBER.findall(text[:200]))
    return [number for number in found if math.isfinite(number)]
