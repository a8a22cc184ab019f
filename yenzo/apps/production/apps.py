from django.apps import AppConfig


class ProductionConfig(AppConfig):
    name = "yenzo.apps.production"
    label = "production"

    def ready(self) -> None:
        """Follow what is decided of pieces; say which files are kept."""
        from yenzo.apps.desk import interface as desk
        from yenzo.apps.orders.interface import order_cancelled
        from yenzo.apps.production import mails
        from yenzo.apps.production.registrations import register
        from yenzo.apps.production.services import job_reactions, packs

        register()
        mails.register()
        desk.pieces_released.connect(packs.on_pieces_released, dispatch_uid="production.packs")
        desk.pieces_released.connect(job_reactions.on_pieces_released, dispatch_uid="production.jobs")
        desk.pieces_held.connect(job_reactions.on_pieces_held, dispatch_uid="production.held")
        desk.change_wanted.connect(job_reactions.on_change_wanted, dispatch_uid="production.begun")
        desk.packed_wanted.connect(job_reactions.on_packed_wanted, dispatch_uid="production.packed")
        desk.pieces_changed.connect(packs.on_pieces_changed, dispatch_uid="production.packs_changed")
        desk.pieces_changed.connect(job_reactions.on_pieces_changed, dispatch_uid="production.changed")
        desk.order_replanned.connect(job_reactions.on_order_replanned, dispatch_uid="production.replanned")
        order_cancelled.connect(job_reactions.on_order_cancelled, dispatch_uid="production.stop")
