"""Mathematics as it looks: rows of signs and of parts that stand over, under, beside and in each other."""
