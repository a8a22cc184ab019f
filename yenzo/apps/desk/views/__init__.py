"""The pages of the desk, and the one that a customer answers on."""
