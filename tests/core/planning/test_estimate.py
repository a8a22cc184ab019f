"""Minutes and cost follow from what is on a piece."""

from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from yenzo.core.documents.materials import Method
from yenzo.core.planning.estimate import Content, estimate

CARVING = Method(
    name="Carving",
    done="carved",
    setup_minutes=10,
    piece_minutes=4,
    letter_minutes=0.5,
    cm2_minutes=0.02,
    hour_cost="36",
)


def test_minutes_are_of_setting_up_pieces_letters_and_ink():
    found = estimate(CARVING, Content(letters=8, ink_cm2=100), 3)
    assert found.minutes == 10 + 3 * (4 + 8 * 0.5 + 100 * 0.02)
    assert found.cost == Decimal("24.00")
    assert found.reasons == ("10 min to set up", "3 × 10 min for 8 letters, 100 cm² of ink")


counts = st.integers(0, 500)


@given(counts, counts, st.integers(1, 1000), counts)
def test_more_is_never_quicker(letters, ink, pieces, more):
    few = estimate(CARVING, Content(letters, ink), pieces)
    many = estimate(CARVING, Content(letters + more, ink + more), pieces + more)
    assert many.minutes >= few.minutes
    assert many.cost >= few.cost
