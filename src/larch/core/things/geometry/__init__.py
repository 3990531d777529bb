"""Points, lines, circles, polygons, tiles."""
