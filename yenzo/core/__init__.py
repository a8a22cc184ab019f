"""The core: set-up and entries documents come in; problems, quotes, scenes and production files go out.

No Django, database, settings, clock, randomness or environment in here. Lengths are millimetres, x to the
right, y down, origin at the top left of the side or area; only back-ends flip.
"""
