"""Making a pack: its id comes in, files are made by the core and kept."""

from yenzo.apps.accounts.rights import SYSTEM_ACTOR
from yenzo.apps.orders.to_core import work_of
from yenzo.apps.production.models import Pack
from yenzo.apps.production.services.packs import SETTLED, keep_pack, note_progress


def make(pack_id: int) -> None:
    """Make a pack unless it is made already, or not wanted any more; raises YenzoError when it can't be drawn."""
    # All that draws files is large: only processes that make packs load it, and all others start sooner.
    from yenzo.core.planning.pack import make_pack

    pack = Pack.objects.select_related("line__order", "line__revision", "personalization__revision").get(pk=pack_id)
    if pack.state in SETTLED or pack.line.order.is_cancelled:
        return
    work = work_of(pack.line, pack.index, pack.line.order.lines.count(), pack.personalization)
    made = make_pack(work, lambda done, steps: note_progress(SYSTEM_ACTOR, pack_id, done, steps))
    # It was in order when it was ordered. A check that was made stricter since asks; it doesn't stop.
    questioned = " ".join(item.message for item in work.evaluation.verdict.blocking)
    keep_pack(SYSTEM_ACTOR, pack_id, made, questioned=questioned)
