"""Tables, boxes with words, and the lines that join things."""
