from yenzo.apps.orders.models.orders import Line, Order, OrderEvent, Piece
from yenzo.apps.orders.models.payments import Payment

__all__ = ["Line", "Order", "OrderEvent", "Payment", "Piece"]
