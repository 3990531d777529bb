"""Errors that are no mistakes of ours: their words are meant for a person."""


class Foreseen(Exception):
    """Something that can't be done, said in one sentence."""
