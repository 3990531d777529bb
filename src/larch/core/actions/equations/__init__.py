"""Operations on equations."""
