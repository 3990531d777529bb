"""What was written and drawn by hand, read: mathematics, words, shapes. Runs in the worker; knows no Qt."""
