"""Services of files: checking that they are whole, clearing what has been kept long enough."""
