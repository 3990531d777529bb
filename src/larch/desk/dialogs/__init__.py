"""Dialogs and help."""
