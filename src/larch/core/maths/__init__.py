"""Mathematics without a page."""
