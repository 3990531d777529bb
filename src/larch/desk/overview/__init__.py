"""All pages laid out, and turning them."""
