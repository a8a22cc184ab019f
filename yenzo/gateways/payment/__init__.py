"""Payment: an amount and a reference go out, whether it was paid comes back."""
