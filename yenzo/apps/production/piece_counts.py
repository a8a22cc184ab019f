"""What of an order is made, packed and sent: an order comes in; its pieces that are alike, each with counts, go out."""

from collections import Counter
from dataclasses import dataclass

from yenzo.apps.desk.models import Preflight
from yenzo.apps.orders.models import Order, Piece
from yenzo.apps.orders.showing import ShownLine, ShownPiece
from yenzo.apps.production.models import Job, Parcel, ParcelItem

Key = tuple[int, int]


@dataclass(frozen=True)
class PieceCounts:
    """Pieces that are alike: how many are ordered, made, in the parcel that is being packed, and in sent ones."""

    piece: ShownPiece
    made: int
    packed: int
    sent: int
    is_cancelled: bool = False

    @property
    def ordered(self) -> int:
        """How many are ordered and not cancelled."""
        return 0 if self.is_cancelled else self.piece.count

    @property
    def left(self) -> int:
        """How many are made and lie in no parcel."""
        return max(0, self.made - self.packed - self.sent)

    @property
    def key(self) -> Key:
        """Which pieces they are: line and first index."""
        return self.piece.line.pk, self.piece.index


def made_by_pieces(order: Order) -> Counter[Key]:
    """Return how many pieces are through their last method, by line and first index."""
    # What was made of pieces before they were changed isn't theirs.
    now = Piece.objects.filter(line__order=order).values("personalization")
    jobs = Job.objects.filter(line__order=order, personalization__in=now)
    rows = list(jobs.values_list("line", "index", "place", "made"))
    last: dict[Key, int] = {}
    for line, index, place, _ in rows:
        last[line, index] = max(last.get((line, index), 0), place)
    made, cancelled = Counter[Key](), cancelled_pieces(order)
    for line, index, place, count in rows:
        if place == last[line, index] and (line, index) not in cancelled:
            made[line, index] += count
    return made


def cancelled_pieces(order: Order) -> set[Key]:
    """Return which pieces of an order were cancelled."""
    cancelled = Preflight.objects.filter(line__order=order, state=Preflight.State.CANCELLED)
    return set(cancelled.values_list("line", "index"))


def packed_by_pieces(order: Order, *, sent: bool) -> Counter[Key]:
    """Return how many pieces lie in sent parcels, or in the one that is being packed."""
    items = ParcelItem.objects.filter(parcel__order=order, parcel__sent_at__isnull=not sent)
    counts = Counter[Key]()
    for line, index, quantity in items.values_list("line", "index", "quantity"):
        counts[line, index] += quantity
    return counts


def count_pieces(order: Order) -> list[PieceCounts]:
    """Return the pieces of an order with how far they are."""
    made, packed, sent = made_by_pieces(order), packed_by_pieces(order, sent=False), packed_by_pieces(order, sent=True)
    lines = order.lines.select_related("order", "revision", "personalization__revision")
    keyed = [((line.pk, piece.index), piece) for line in lines for piece in ShownLine(line).pieces]
    cancelled = cancelled_pieces(order)
    return [PieceCounts(piece, made[key], packed[key], sent[key], key in cancelled) for key, piece in keyed]


def open_parcel(order: Order) -> Parcel | None:
    """Return the parcel of an order that is being packed."""
    return order.parcels.filter(sent_at=None).first()
