"""How long things take: planning beside its floor, an edit on screen, many people at once."""
