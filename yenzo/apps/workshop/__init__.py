"""The workshop's own settings: its name and how long things are kept, when it works, how it delivers."""
