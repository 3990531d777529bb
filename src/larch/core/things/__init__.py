"""The kinds of thing, one module each. They are found by themselves: see `larch.core.model.thing.kinds`."""
