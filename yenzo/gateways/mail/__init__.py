"""Mail: Django's backends send it; the outbox in a folder is one of them."""
