"""Preflight itself: a scene and the materials come in, all findings go out."""

from yenzo.core.caching import cached_on
from yenzo.core.documents.materials import Materials, Method
from yenzo.core.preflight.checks.codes import find_unreadable_codes
from yenzo.core.preflight.checks.colors import find_colors, find_without_process
from yenzo.core.preflight.checks.contours import find_without_contours
from yenzo.core.preflight.checks.contrast import find_hardly_seen, find_on_own_plate
from yenzo.core.preflight.checks.drawings import find_in_drawings
from yenzo.core.preflight.checks.effects import find_fine_effects
from yenzo.core.preflight.checks.hidden import find_nothing_shown, find_under_pictures
from yenzo.core.preflight.checks.merging import find_merging
from yenzo.core.preflight.checks.narrow import find_narrow
from yenzo.core.preflight.checks.outside import find_outside
from yenzo.core.preflight.checks.overlapping import find_overlapping
from yenzo.core.preflight.checks.see_through import find_see_through
from yenzo.core.preflight.checks.too_coarse import find_too_coarse
from yenzo.core.preflight.checks.too_long import find_too_long
from yenzo.core.preflight.checks.too_small import find_too_small
from yenzo.core.preflight.checks.too_thin import find_too_thin
from yenzo.core.preflight.checks.undecided import find_undecided
from yenzo.core.preflight.checks.underbase import find_white_edges
from yenzo.core.preflight.findings import Check, Finding
from yenzo.core.scene.nodes import AreaScene, Scene
from yenzo.core.translation import current_language

CHECKS: tuple[Check, ...] = (
    find_undecided,
    find_outside,
    find_too_long,
    find_too_small,
    find_too_thin,
    find_narrow,
    find_fine_effects,
    find_too_coarse,
    find_colors,
    find_without_process,
    find_without_contours,
    find_in_drawings,
    find_merging,
    find_overlapping,
    find_hardly_seen,
    find_on_own_plate,
    find_nothing_shown,
    find_under_pictures,
    find_see_through,
    find_unreadable_codes,
    find_white_edges,
)


def preflight(scene: Scene, materials: Materials) -> tuple[Finding, ...]:
    """Return what the methods can't make of this scene, or not well, area by area."""
    return tuple(
        finding
        for area in scene.areas
        if area.method in materials.methods
        for finding in _findings(area, materials.methods[area.method])
    )


def _findings(area: AreaScene, method: Method) -> tuple[Finding, ...]:
    """Return what a method can't make of an area, found once: most areas stay as they are while one is changed."""

    def find() -> tuple[Finding, ...]:
        """Put it to each check."""
        return tuple(finding for check in CHECKS for finding in check(area, method))

    return cached_on(area, "findings", (method, current_language()), find)
