from django.urls import path

from yenzo.apps.desk.views import answering, pieces

app_name = "desk"
urlpatterns = [
    path("workshop/desk/lines/<int:line_id>/", pieces.of_line, name="line"),
    path("workshop/desk/<int:preflight_id>/", pieces.page, name="pieces"),
    path("workshop/desk/<int:preflight_id>/hold/", pieces.hold, name="hold"),
    path("workshop/desk/<int:preflight_id>/release/", pieces.release, name="release"),
    path("workshop/desk/<int:preflight_id>/cancel/", pieces.cancel, name="cancel_pieces"),
    path("workshop/desk/<int:preflight_id>/ask/", pieces.ask, name="ask"),
    path("workshop/desk/<int:preflight_id>/mend/", pieces.mend, name="mend"),
    path("workshop/desk/<int:preflight_id>/mend/preview/", pieces.preview, name="mend_preview"),
    path(
        "workshop/desk/<int:preflight_id>/<int:change_id>/<slug:when>-<slug:side_key>.png",
        pieces.changed_picture,
        name="changed_picture",
    ),
    path("workshop/desk/findings/<int:finding_id>/waive/", pieces.waive, name="waive"),
    path("workshop/desk/questions/<int:question_id>/back/", pieces.withdraw, name="withdraw"),
    path("workshop/desk/orders/", pieces.many, name="many"),
    path("workshop/desk/orders/<int:number>/rush/", pieces.rush, name="rush"),
    path("workshop/desk/orders/<int:number>/day/", pieces.move, name="move"),
    path("workshop/desk/orders/<int:number>/waive/<int:difference_id>/", pieces.waive_amount, name="waive_amount"),
    path("question/<str:token>/", answering.page, name="question"),
    path("question/<str:token>/preview/", answering.preview, name="question_preview"),
    path("question/<str:token>/so/", answering.as_it_is, name="answer_as_it_is"),
    path("question/<str:token>/words/", answering.in_words, name="answer_in_words"),
    path("question/<str:token>/changed/", answering.changed, name="answer_changed"),
    path("question/<str:token>/<slug:side_key>.png", answering.picture, name="question_picture"),
]
