"""What comes in and goes out: pictures, the clipboard, links."""
