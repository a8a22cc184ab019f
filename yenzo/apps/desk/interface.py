"""What production listens to, and what it is asked before pieces are changed."""

from dataclasses import dataclass

from django.dispatch import Signal

# Sent within the change, with `order` and `pieces`, the places (line id, first index) of pieces that are alike.
pieces_released = Signal()
pieces_held = Signal()
# Sent before pieces are changed, with `order` and `place`: each receiver returns in words what of them is begun.
change_wanted = Signal()
# Sent before pieces are cancelled, with `order` and `place`: each receiver returns how many of them are packed.
packed_wanted = Signal()
# Sent within the change, with `order` and `place`: what was made or planned of them isn't theirs any more.
pieces_changed = Signal()
# Sent within the change, with `order`: it leaves on another day, or before all others.
order_replanned = Signal()


@dataclass(frozen=True)
class Place:
    """Which pieces are meant: those of a line that are like its piece of this index."""

    line_id: int
    index: int
