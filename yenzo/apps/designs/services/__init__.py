"""Services of designs: uploads taken, entries saved."""
