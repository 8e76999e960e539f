"""Carved tiers: what each layer is cut to, what is cut out of it, and how it looks in the round."""
