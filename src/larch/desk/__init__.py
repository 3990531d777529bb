"""Windows: the main window with ledge, shelf, tag, facts, spread and Finder."""
