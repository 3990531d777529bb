"""A lesson being worked at: commits, undo, observers."""
