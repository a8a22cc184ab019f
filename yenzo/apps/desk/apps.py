from django.apps import AppConfig


class DeskConfig(AppConfig):
    name = "yenzo.apps.desk"
    label = "desk"

    def ready(self) -> None:
        """Look at the pieces of an order as soon as it is paid; say who writes the mails."""
        from yenzo.apps.desk import mails, waiting
        from yenzo.apps.desk.services import preflights
        from yenzo.apps.orders.interface import order_changed, order_paid

        mails.register()
        order_paid.connect(preflights.on_order_paid, dispatch_uid="desk.preflight")
        order_changed.connect(waiting.on_order_changed, dispatch_uid="desk.waiting")
