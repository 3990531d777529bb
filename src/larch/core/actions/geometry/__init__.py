"""What can be done with figures."""
