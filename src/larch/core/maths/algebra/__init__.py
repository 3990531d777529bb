"""What expressions and statements mean over the real numbers: whether they are the same, and what follows from what."""
