from django.urls import path

from yenzo.apps.designs.views import pictures

app_name = "designs"
urlpatterns = [
    path("uploads/<uuid:upload_id>/picture/", pictures.upload_picture, name="upload_picture"),
    path("goods-pictures/<str:sha256>/", pictures.goods_picture, name="goods_picture"),
    path("goods-pictures/<str:sha256>/<int:width_px>/", pictures.smaller_picture, name="smaller_picture"),
    path("typefaces/<str:sha256>/specimen.svg", pictures.specimen, name="specimen"),
]
