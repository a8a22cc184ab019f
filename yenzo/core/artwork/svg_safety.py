"""Whether an SVG drawing may be opened: bytes come in, an XML tree of a drawing that only draws, or a refusal."""

import re

from lxml import etree

from yenzo.core.artwork.effort import refuse_effort
from yenzo.core.artwork.identify import damaged, unsafe
from yenzo.core.errors import ArtworkError
from yenzo.core.translation import listed, translate, translate_noop

SVG = "{http://www.w3.org/2000/svg}"
HREFS = ("href", "{http://www.w3.org/1999/xlink}href")
REMEDY = translate_noop("Please export it as a plain SVG, a PDF or a PNG.")
AS_OUTLINES = translate_noop(
    "Please turn texts into outlines (curves, paths) in your drawing program and save it again."
)
INSIDE = re.compile(r"#|data:image/(png|jpeg);base64,", re.I)
ELSEWHERE = re.compile(r"@import|url\(\s*[\"']?\s*(?!#)\w", re.I)
MOVING = {"animate", "animateTransform", "animateMotion", "set"}
MOST_NODES, MOST_REPEATED = 200_000, 50_000


def parse_svg(data: bytes, name: str) -> etree._Element:
    """Return the root of an XML document in any encoding, without what a document type could hide in it.

    Raises ArtworkError. What is looked at and what is drawn are this one tree, never the bytes again.
    """
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        root = etree.fromstring(data, parser)
    except (etree.XMLSyntaxError, ValueError, LookupError) as error:
        if "depth" in str(error).lower():
            raise unsafe(name, translate("its parts lie in each other far too deeply"), translate(REMEDY)) from error
        raise damaged(name) from error
    tree = root.getroottree()
    # A document type may name a standard; one that declares anything by itself does more than a drawing needs.
    declares = tree.docinfo.internalDTD is not None and "[" in etree.tostring(tree, encoding="unicode").split("<svg")[0]
    if declares or next(root.iter(etree.Entity), None) is not None:
        raise unsafe(name, translate("it defines entities"), translate(REMEDY))
    return root


def written_svg(root: etree._Element) -> bytes:
    """Return a tree as a file of its own, without document type and instructions: what converters are given."""
    return bytes(etree.tostring(root, encoding="utf-8", xml_declaration=True))


def safe_svg(data: bytes, name: str) -> etree._Element:
    """Return the root of an SVG drawing; raises ArtworkError for one that isn't, or does more than draw."""
    root = parse_svg(data, name)
    if root.tag not in {f"{SVG}svg", "svg"}:
        raise ArtworkError(
            "wrong_kind",
            name,
            translate(
                "“{name}” is a web page or another text, no drawing. {remedy}", name=name, remedy=translate(REMEDY)
            ),
        )
    dangers = _dangers(root, name)
    if dangers:
        raise unsafe(name, listed(dangers), translate(REMEDY))
    _refuse_repetition(root, name)
    refuse_effort(root, name)
    return root


def is_moving(root: etree._Element) -> bool:
    """Tell whether a drawing is animated."""
    return any(_local(node) in MOVING for node in root.iter(etree.Element))


def _dangers(root: etree._Element, name: str) -> list[str]:
    found: dict[str, None] = {}
    for count, node in enumerate(root.iter()):
        if count > MOST_NODES:
            raise ArtworkError(
                "too_heavy",
                name,
                translate("“{name}” has more than {most} parts. Please simplify it.", name=name, most=MOST_NODES),
            )
        if node.tag is etree.ProcessingInstruction and "href" in (node.text or ""):
            found[translate("it points to files elsewhere")] = None
        if not isinstance(node.tag, str):
            continue
        local = _local(node)
        if local == "script" or any(_is_script(key, value) for key, value in node.attrib.items()):
            found[translate("it has a script inside")] = None
        if local == "foreignObject":
            found[translate("it has a web page inside")] = None
        # A link around a part leads somewhere, but nothing is drawn from there.
        if local != "a" and any((link := node.get(key)) and not INSIDE.match(link.strip()) for key in HREFS):
            found[translate("it points to files elsewhere")] = None
        styles = [value for key, value in node.attrib.items() if key not in HREFS]
        if ELSEWHERE.search(" ".join([*styles, (node.text or "") if local == "style" else ""])):
            found[translate("it points to files elsewhere")] = None
        if local == "text" and "".join(node.itertext()).strip():
            text = " ".join("".join(node.itertext()).split())[:40]
            message = translate(
                "“{name}” has a text (“{text}”) that needs a typeface which isn't in the file. {remedy}",
                name=name,
                text=text,
                remedy=translate(AS_OUTLINES),
            )
            raise ArtworkError("live_text", name, message)
    return list(found)


def _is_script(key: str, value: str) -> bool:
    return key.lower().startswith("on") or (key in HREFS and value.strip().lower().startswith("javascript:"))


def _refuse_repetition(root: etree._Element, name: str) -> None:
    """Raise ArtworkError for parts that repeat themselves, or each other without end."""
    named = {node.get("id"): node for node in root.iter(etree.Element) if node.get("id")}
    drawn: dict[etree._Element, int] = {}
    open_now: set[etree._Element] = set()

    def count(node: etree._Element) -> int:
        """Return how many elements are drawn for a node, those that it repeats included."""
        if node in open_now:
            raise unsafe(name, translate("a part of it repeats itself without end"), translate(REMEDY))
        if node not in drawn:
            open_now.add(node)
            total = 1 + sum(count(child) for child in node if isinstance(child.tag, str))
            target = named.get(_target(node)) if _local(node) == "use" else None
            total += count(target) if target is not None else 0
            open_now.discard(node)
            drawn[node] = min(total, MOST_NODES + MOST_REPEATED + 1)
        return drawn[node]

    if count(root) > len(drawn) + MOST_REPEATED:
        raise unsafe(
            name,
            translate("its parts repeat each other more than {most} times", most=MOST_REPEATED),
            translate(REMEDY),
        )


def _target(node: etree._Element) -> str:
    return next((link.strip()[1:] for key in HREFS if (link := node.get(key))), "")


def _local(node: etree._Element) -> str:
    return node.tag.rsplit("}", 1)[-1] if isinstance(node.tag, str) else ""
