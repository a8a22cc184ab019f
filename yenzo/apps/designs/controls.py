"""Controls of the slip: a kind of field comes in, the template that asks for it goes out."""

TEXT, CHOICE = "designs/_text_control.html", "designs/_choice_control.html"
# What the workshop puts on by itself has no control: nobody is asked.
NOTHING = "designs/_nothing_control.html"
CONTROLS: dict[str, str] = {
    "line": TEXT,
    "paragraph": TEXT,
    "number": TEXT,
    "email": TEXT,
    "phone": TEXT,
    "link": TEXT,
    "note": TEXT,
    "date": "designs/_date_control.html",
    "choice": CHOICE,
    "several": CHOICE,
    "ready_made": CHOICE,
    "method": CHOICE,
    "fixed_text": NOTHING,
    "fixed_artwork": NOTHING,
    "address": "designs/_address_control.html",
    "computed": "designs/_computed_control.html",
    "extra": "designs/_extra_control.html",
    "heading": "designs/_heading_control.html",
    "typeface": CHOICE,
    "color": CHOICE,
    "yes_no": "designs/_yes_no_control.html",
    "artwork": "designs/_upload_control.html",
}
# The keys that phones show. Browsers check nothing by themselves: their words would hide ours.
INPUT_MODES = {"number": "decimal", "extra": "numeric", "email": "email", "phone": "tel", "link": "url"}
