from django.urls import path

from yenzo.apps.production.views import floor, packing, packs

app_name = "production"
urlpatterns = [
    path("production/", floor.week, name="week"),
    path("production/plan/", floor.plan, name="plan"),
    path("production/stations/new/", floor.edit_station, name="new_station"),
    path("production/stations/<slug:key>/", floor.station, name="station"),
    path("production/stations/<slug:key>/change/", floor.edit_station, name="edit_station"),
    path("production/stations/<slug:key>/next/", floor.take, name="take_next"),
    path("production/badges.pdf", floor.badges, name="badges"),
    path("production/stations/<slug:key>/leave/", floor.leave, name="leave_station"),
    path("production/stations/<slug:key>/scan/", floor.scan, name="scan"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/made/", floor.made, name="made"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/spoilt/", floor.spoilt, name="spoilt"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/back/", floor.back, name="put_back"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/ask/", floor.ask_desk, name="ask_desk"),
    path("production/stations/<slug:key>/jobs/<int:job_id>/aside/", floor.aside, name="lay_aside"),
    path("production/tickets.pdf", floor.papers, {"kind": "tickets"}, name="tickets"),
    path("production/labels.pdf", floor.papers, {"kind": "labels"}, name="labels"),
    path("production/jobs/<int:job_id>/", floor.job, name="job"),
    path("production/orders/<int:number>/", floor.jobs_of_order, name="jobs_of_order"),
    path("production/packing/", packing.table, name="packing"),
    path("production/packing/scan/", packing.scan, name="pack_scan"),
    path("production/packing/<int:number>/", packing.order_at_table, name="pack_order"),
    path("production/packing/<int:number>/in/", packing.put_in, name="put_in_parcel"),
    path("production/packing/<int:number>/<int:item_id>/out/", packing.take, name="take_out"),
    path("production/packing/<int:number>/sent/", packing.send, name="send_parcel"),
    path("production/parcels/<int:parcel_id>/delivery-note.pdf", packing.note, name="delivery_note"),
    path("production/parcels/<int:parcel_id>/label.pdf", packing.parcel_label, name="parcel_label"),
    path("packs/<int:line_id>/", packs.pack_state, name="pack"),
    path("packs/<int:line_id>/again/", packs.make_again, name="make_again"),
    path("packs/<int:line_id>/file/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/file/<int:index>/", packs.pack_file, name="pack_file"),
    path("packs/<int:line_id>/all/", packs.all_packs, name="all_packs"),
]
