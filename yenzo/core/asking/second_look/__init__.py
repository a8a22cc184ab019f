"""The second look: entries that are allowed and probably wrong are asked about, one file a kind of doubt (D9)."""
