"""Typing on the page. An editor is found by the name that a thing gives (`Thing.editor`)."""
