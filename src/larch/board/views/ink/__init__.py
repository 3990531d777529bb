"""Views of ink."""
