"""Layers of a tier: what is baked, cut and filled, and what lies hidden between them."""
