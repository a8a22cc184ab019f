"""The demo workshop "Tern & Tiller": invented goods, people and orders."""
