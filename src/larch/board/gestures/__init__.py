"""What a pointer does from press to release. No Qt."""
