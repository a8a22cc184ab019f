"""Orders: what was ordered, frozen as it was, paid and written down."""
