"""What can be done with anything."""
