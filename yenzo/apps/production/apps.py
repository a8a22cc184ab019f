from django.apps import AppConfig


class ProductionConfig(AppConfig):
    name = "yenzo.apps.production"
    label = "production"

    def ready(self) -> None:
        """Begin the packs of an order as soon as it is paid; say which files are kept."""
        from yenzo.apps.orders.interface import order_cancelled, order_paid
        from yenzo.apps.production.keeping import register
        from yenzo.apps.production.services import jobs
        from yenzo.apps.production.services.packs import on_order_paid

        register()

        order_paid.connect(on_order_paid, dispatch_uid="production.packs")
        order_paid.connect(jobs.on_order_paid, dispatch_uid="production.jobs")
        order_cancelled.connect(jobs.on_order_cancelled, dispatch_uid="production.stop")
