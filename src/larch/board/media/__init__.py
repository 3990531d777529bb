"""Pictures from elsewhere, read and bounded."""
