from yenzo.apps.orders.models.orders import Order, OrderEvent, Piece
from yenzo.apps.orders.models.payments import Payment

__all__ = ["Order", "OrderEvent", "Payment", "Piece"]
