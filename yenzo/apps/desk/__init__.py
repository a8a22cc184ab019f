"""The desk: what is found before making, what is held, asked back and mended, and who has to do what next."""
