from yenzo.apps.orders.models.differences import Difference
from yenzo.apps.orders.models.events import OrderEvent
from yenzo.apps.orders.models.notes import OrderNote
from yenzo.apps.orders.models.orders import Agreement, Line, Order, Piece
from yenzo.apps.orders.models.payments import Payment

__all__ = ["Agreement", "Difference", "Line", "Order", "OrderEvent", "OrderNote", "Payment", "Piece"]
