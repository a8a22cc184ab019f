from django.urls import path

from yenzo.apps.production.views import floor, packs

app_name = "production"
urlpatterns = [
    path("production/", floor.week, name="week"),
    path("production/stations/new/", floor.edit_station, name="new_station"),
    path("production/stations/<slug:key>/", floor.station, name="station"),
    path("production/stations/<slug:key>/change/", floor.edit_station, name="edit_station"),
    path("production/stations/<slug:key>/next/", floor.take, name="take_next"),
    path("production/stations/<slug:key>/scan/", floor.scan, name="scan"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/made/", floor.made, name="made"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/spoilt/", floor.spoilt, name="spoilt"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/back/", floor.back, name="put_back"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/aside/", floor.aside, name="lay_aside"),
    path("production/jobs/<int:job_id>/", floor.job, name="job"),
    path("production/orders/<int:number>/", floor.jobs_of_order, name="jobs_of_order"),
    path("production/orders/<int:number>/sent/", floor.send, name="send_order"),
    path("packs/<int:line_id>/", packs.pack_state, name="pack"),
    path("packs/<int:line_id>/again/", packs.make_again, name="make_again"),
    path("packs/<int:line_id>/file/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/file/<int:index>/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/all/", packs.all_packs, name="all_packs"),
]
