from django.contrib.sitemaps.views import sitemap
from django.urls import path

from yenzo.apps.shop.found_by import Goods, Home, robots
from yenzo.apps.shop.views import account, basket, orders, pieces, products, unfinished

app_name = "shop"
urlpatterns = [
    path("", products.home, name="home"),
    path("sitemap.xml", sitemap, {"sitemaps": {"home": Home, "goods": Goods}}, name="sitemap"),
    path("robots.txt", robots, name="robots"),
    path("goods/<slug:key>/", products.product_page, name="product"),
    path("goods/<slug:key>/preview/", products.refresh, name="refresh"),
    path("goods/<slug:key>/reworded/", products.reword, name="reword"),
    path("goods/<slug:key>/keep/", unfinished.keep, name="keep"),
    path("goods/<slug:key>/again/", unfinished.again, name="again"),
    path("goods/<slug:key>/show/", unfinished.show, name="show"),
    path("goods/<slug:key>/anew/", unfinished.begin_anew, name="begin_anew"),
    path("goods/<slug:key>/basket/", products.put_in_basket, name="put_in_basket"),
    path("goods/<slug:key>/sample-<str:sha256>-<int:width_px>.webp", products.sample_picture, name="sample_picture"),
    path("account/", account.account, name="account"),
    path("account/link/", account.ask, name="ask_for_link"),
    path("account/out/", account.sign_out, name="sign_out"),
    path("account/<str:token>/", account.use, name="use_link"),
    path("basket/", basket.basket, name="basket"),
    path("basket/<uuid:design_id>/answer/", pieces.answer, name="answer"),
    path("basket/<uuid:design_id>/count/", pieces.count, name="count"),
    path("basket/<uuid:design_id>/copy/", pieces.copy, name="copy"),
    path("basket/<uuid:design_id>/remove/", pieces.remove, name="remove"),
    path("basket/<uuid:design_id>/back/", pieces.put_back, name="put_back"),
    path("basket/<uuid:design_id>/renew/", pieces.renew, name="renew"),
    path("basket/<uuid:design_id>/like/", pieces.like, name="like"),
    path("basket/<uuid:design_id>/stay/", pieces.stay, name="stay"),
    path("basket/<uuid:design_id>/<slug:side_key>/picture.png", basket.design_picture, name="design_picture"),
    path("checkout/", basket.checkout, name="checkout"),
    path("order/<str:token>/", orders.order_page, name="order"),
    path("order/<str:token>/pay/", orders.pay, name="pay"),
    path("order/<str:token>/payment/", orders.payment_state, name="payment"),
    path("order/<str:token>/<int:line_number>/<slug:side_key>/picture.png", orders.line_picture, name="line_picture"),
]
