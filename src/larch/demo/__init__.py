"""River Lantern Night: the demo lesson, and the example of how a lesson is built by calling the core."""

from larch.demo.lesson import demo_lesson

__all__ = ["demo_lesson"]
