"""How Yenzo is set up on a server: the front door, and units for systemd."""
