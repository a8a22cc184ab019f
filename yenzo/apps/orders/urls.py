from django.urls import path

from yenzo.apps.orders.views import notes, orders

app_name = "orders"
urlpatterns = [
    path("orders/", orders.order_list, name="orders"),
    path("orders/orders.csv", orders.order_table, {"form": "csv"}, name="csv"),
    path("orders/orders.xlsx", orders.order_table, {"form": "xlsx"}, name="xlsx"),
    path("orders/<int:number>/", orders.order_page, name="order"),
    path("orders/<int:number>/cancel/", orders.cancel, name="cancel"),
    path("orders/<int:number>/write/", notes.write, name="write"),
    path("orders/<int:number>/files/<int:note_id>/", notes.note_file, name="note_file"),
    path("orders/<int:number>/invoice.pdf", orders.invoice, name="invoice"),
    path(
        "orders/<int:number>/<int:line_number>/<slug:side_key>/picture.png",
        orders.line_picture,
        name="line_picture",
    ),
    path(
        "orders/<int:number>/<int:line_number>.<int:index>/<slug:side_key>/picture.png",
        orders.line_picture,
        name="row_picture",
    ),
    path("orders/<int:number>/<int:line_number>/uploads/<uuid:upload_id>/", orders.original, name="original"),
    path("orders/<int:number>/<int:line_number>/uploads/<uuid:upload_id>/prepared/", orders.prepared, name="prepared"),
]
