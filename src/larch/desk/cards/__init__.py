"""Cards and strips beside the page: facts, layers, steps, the tag, messages."""
