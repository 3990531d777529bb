"""Views of fractions."""
