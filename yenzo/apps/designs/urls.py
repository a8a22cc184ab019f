from django.urls import path

from yenzo.apps.designs.views import pictures, try_out, uploads

app_name = "designs"
urlpatterns = [
    path("uploads/", uploads.send, name="send_upload"),
    path("uploads/<uuid:upload_id>/", uploads.state, name="upload_state"),
    path("uploads/<uuid:upload_id>/prepare/", uploads.prepare, name="prepare_upload"),
    path("uploads/<uuid:upload_id>/picture/", pictures.upload_picture, name="upload_picture"),
    path("goods-pictures/<str:sha256>/", pictures.goods_picture, name="goods_picture"),
    path("goods-pictures/<str:sha256>/<int:width_px>/", pictures.smaller_picture, name="smaller_picture"),
    path("typefaces/<str:sha256>/specimen.svg", pictures.specimen, name="specimen"),
    path("workshop/products/<slug:key>/try-out/", try_out.try_out, name="try_out"),
    path("workshop/products/<slug:key>/try-out/refresh/", try_out.refresh, name="try_out_refresh"),
]
