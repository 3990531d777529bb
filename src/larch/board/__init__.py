"""The page as it is seen and touched: canvas, one view per kind of thing, tools and pointers."""
