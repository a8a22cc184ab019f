"""Settings, addresses and the entry points of web and worker."""
