"""What goes on a finished tier: borders, piped regions, and pieces laid on the top."""
