"""What can be done. Operations know kinds; no kind knows them."""
