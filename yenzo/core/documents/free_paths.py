"""Points of free outlines: path data comes in; its nodes, to be moved, added and taken away, and path data go out.

A contour is a ring of nodes. Between two of them the outline is straight, or a cubic where both have a control on that
side. Numbers are those of the data: shares of a frame.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass, replace

from yenzo.core.documents.areas import NUMBER

Point = tuple[float, float]
# A contour of fewer nodes has no inside.
LEAST_NODES = 3
PLACES = 6


@dataclass(frozen=True)
class Node:
    """A point of a contour, with the controls of the cubics that end and begin there."""

    at: Point
    before: Point | None = None
    after: Point | None = None

    def moved_to(self, to: Point) -> "Node":
        """Return the node elsewhere; its controls go along."""
        by = (to[0] - self.at[0], to[1] - self.at[1])
        return Node(to, _shifted(self.before, by), _shifted(self.after, by))


Contour = tuple[Node, ...]


def read_path(data: str) -> tuple[Contour, ...]:
    """Return the contours of path data that a free outline may have (M, L, C, Z in absolute numbers)."""
    return tuple(_read_contour(part) for part in data.split("Z") if part.strip())


def write_path(contours: tuple[Contour, ...]) -> str:
    """Return contours as path data."""
    return " ".join(_written(contour) for contour in contours)


def moved_node(contours: tuple[Contour, ...], contour: int, node: int, part: str, to: Point) -> tuple[Contour, ...]:
    """Return contours with a node at a point, or (`part` "in" or "out") one of its controls; others as they were."""
    old = contours[contour][node]
    new = {"": old.moved_to(to), "in": replace(old, before=to), "out": replace(old, after=to)}[part]
    return _with(contours, contour, (*contours[contour][:node], new, *contours[contour][node + 1 :]))


def with_node(contours: tuple[Contour, ...], contour: int, node: int) -> tuple[Contour, ...]:
    """Return contours that draw the same with one node more, halfway to the next one (de Casteljau)."""
    nodes = list(contours[contour])
    here, then = nodes[node], nodes[(node + 1) % len(nodes)]
    if here.after is None or then.before is None:
        nodes.insert(node + 1, Node(_middle(here.at, then.at)))
        return _with(contours, contour, tuple(nodes))
    first, between, last = _middle(here.at, here.after), _middle(here.after, then.before), _middle(then.before, then.at)
    before, after = _middle(first, between), _middle(between, last)
    nodes[node] = replace(here, after=first)
    nodes[(node + 1) % len(nodes)] = replace(then, before=last)
    nodes.insert(node + 1, Node(_middle(before, after), before, after))
    return _with(contours, contour, tuple(nodes))


def without_node(contours: tuple[Contour, ...], contour: int, node: int) -> tuple[Contour, ...] | None:
    """Return contours without a node, or None where nothing would be left; a contour goes with its last three."""
    nodes = contours[contour]
    if len(nodes) > LEAST_NODES:
        return _with(contours, contour, (*nodes[:node], *nodes[node + 1 :]))
    return (*contours[:contour], *contours[contour + 1 :]) or None


def _with(contours: tuple[Contour, ...], at: int, contour: Contour) -> tuple[Contour, ...]:
    return (*contours[:at], contour, *contours[at + 1 :])


def _read_contour(part: str) -> Contour:
    nodes: list[Node] = []
    for command, points in _commands(part):
        if command == "C":
            nodes[-1] = replace(nodes[-1], after=points[0])
            nodes.append(Node(points[2], before=points[1]))
        else:
            nodes.append(Node(points[0]))
    # What comes back to where it began ends in its first node.
    if len(nodes) > 1 and nodes[-1].at == nodes[0].at:
        last = nodes.pop()
        nodes[0] = replace(nodes[0], before=last.before)
    return tuple(nodes)


def _commands(part: str) -> Iterator[tuple[str, list[Point]]]:
    for command, numbers in re.findall(r"([MLC])([^MLC]*)", part):
        values = [float(number) for number in re.findall(NUMBER, numbers)]
        yield command, list(zip(values[::2], values[1::2], strict=True))


def _written(contour: Contour) -> str:
    pieces = [f"M{_pair(contour[0].at)}"]
    for node, then in zip(contour, (*contour[1:], contour[0]), strict=True):
        if node.after is not None and then.before is not None:
            pieces.append(f"C{_pair(node.after)} {_pair(then.before)} {_pair(then.at)}")
        elif then is not contour[0]:
            pieces.append(f"L{_pair(then.at)}")
    return " ".join([*pieces, "Z"])


def _pair(point: Point) -> str:
    return " ".join(f"{round(value, PLACES) + 0.0:.6f}".rstrip("0").rstrip(".") for value in point)


def _middle(one: Point, other: Point) -> Point:
    return (one[0] + other[0]) / 2, (one[1] + other[1]) / 2


def _shifted(point: Point | None, by: Point) -> Point | None:
    return None if point is None else (point[0] + by[0], point[1] + by[1])
