"""Controls of the slip: a kind of field comes in, the template that asks for it goes out."""

TEXT, CHOICE = "slip/_text_control.html", "slip/_choice_control.html"
# What the workshop puts on by itself has no control: nobody is asked.
NOTHING = "slip/_nothing_control.html"
CONTROLS: dict[str, str] = {
    "line": TEXT,
    "paragraph": TEXT,
    "number": TEXT,
    "email": TEXT,
    "phone": TEXT,
    "link": TEXT,
    "note": TEXT,
    "date": "slip/_date_control.html",
    "choice": CHOICE,
    "several": CHOICE,
    "ready_made": CHOICE,
    "method": CHOICE,
    "fixed_text": NOTHING,
    "fixed_artwork": NOTHING,
    "address": "slip/_address_control.html",
    "computed": "slip/_computed_control.html",
    "extra": "slip/_extra_control.html",
    "heading": "slip/_heading_control.html",
    "typeface": CHOICE,
    "color": CHOICE,
    "yes_no": "slip/_yes_no_control.html",
    "artwork": "slip/_upload_control.html",
}
# The keys that phones show. Browsers check nothing by themselves: their words would hide ours.
INPUT_MODES = {"number": "decimal", "extra": "numeric", "email": "email", "phone": "tel", "link": "url"}
