"""Bodies: turned and carried up along a profile, carved to views, joined of solids, or read as triangles."""
