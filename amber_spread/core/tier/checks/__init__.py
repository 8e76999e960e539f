"""What to know about a tier that is worked through: its layers, its coats and cover, its media."""
