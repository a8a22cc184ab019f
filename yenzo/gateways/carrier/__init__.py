"""Carriers: a parcel's address goes out, its number and label come back, and later whether it was delivered."""
