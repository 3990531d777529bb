"""What a headless command says of bad input."""


class Refused(Exception):
    """Bad input; the message is one sentence."""
