"""The ledge with its tools, their choices, and the tool in hand."""
