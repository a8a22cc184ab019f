"""Services of the shop: customers who sign in."""
