"""What pages of the shop say in the workshop's own words."""
