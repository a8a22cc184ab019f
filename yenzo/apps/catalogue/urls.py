from django.urls import path

from yenzo.apps.catalogue.views import areas, lines, materials, products, setup, sides

app_name = "catalogue"
urlpatterns = [
    path("", products.product_list, name="products"),
    path("new/", products.new_product, name="new_product"),
    path("materials/", materials.material_list, name="materials"),
    path("materials/methods/new/", materials.edit_method, name="new_method"),
    path("materials/methods/<slug:key>/", materials.edit_method, name="method"),
    path("materials/palettes/new/", materials.edit_palette, name="new_palette"),
    path("materials/palettes/<slug:key>/", materials.edit_palette, name="palette"),
    path("materials/typefaces/new/", materials.edit_typeface, name="new_typeface"),
    path("materials/typefaces/<slug:key>/", materials.edit_typeface, name="typeface"),
    path("<slug:key>/", setup.setup_page, name="setup"),
    path("<slug:key>/undo/", setup.undo, name="undo"),
    path("<slug:key>/redo/", setup.redo, name="redo"),
    path("<slug:key>/publish/", setup.publish, name="publish"),
    path("<slug:key>/offer/", setup.offer, name="offer"),
    path("<slug:key>/sides/new/", sides.new_side, name="new_side"),
    path("<slug:key>/sides/<slug:side_key>/scale/", sides.mark_scale, name="scale"),
    path("<slug:key>/sides/<slug:side_key>/remove/", sides.remove_side, name="remove_side"),
    path("<slug:key>/variants/", sides.variants, name="variants"),
    path("<slug:key>/variants/<slug:variant_key>/remove/", sides.remove_variant, name="remove_variant"),
    path("<slug:key>/areas/<slug:side_key>/", areas.draw_area, name="draw_area"),
    path("<slug:key>/sides/<slug:side_key>/windows/", areas.add_windows, name="windows"),
    path("<slug:key>/areas/<slug:side_key>/<slug:area_key>/", areas.change_area, name="change_area"),
    path("<slug:key>/areas/<slug:side_key>/<slug:area_key>/shape/", areas.shape_area, name="shape_area"),
    path("<slug:key>/areas/<slug:side_key>/<slug:area_key>/place/", areas.place_area, name="place_area"),
    path("<slug:key>/areas/<slug:side_key>/<slug:area_key>/remove/", areas.remove_area, name="remove_area"),
    path("<slug:key>/lines/", lines.add_line, name="add_line"),
    path("<slug:key>/lines/<slug:field_key>/move/", lines.move_line, name="move_line"),
    path("<slug:key>/lines/<slug:field_key>/copy/", lines.copy_line, name="copy_line"),
    path("<slug:key>/lines/<slug:field_key>/remove/", lines.remove_line, name="remove_line"),
    path("<slug:key>/lines/<slug:field_key>/<slug:aspect_key>/", lines.edit_aspect, name="edit_aspect"),
]
