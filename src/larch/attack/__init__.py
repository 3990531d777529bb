"""`larch attack`: hostile input by grammar, a monkey at the real window, faults at every operation of the disk."""
