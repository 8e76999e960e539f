"""Coats of a tier, and a drum that is coated before it lies on its side."""
