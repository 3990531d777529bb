"""Tools: small state machines, one per pointer, that turn samples into edits. They know no Qt."""
