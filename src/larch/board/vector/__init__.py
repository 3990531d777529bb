"""Pages as drawings: a paint device of our own that keeps clips, blends and words, written as SVG or as PDF."""
