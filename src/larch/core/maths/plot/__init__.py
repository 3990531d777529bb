"""What a graph has: branches, zeros, turning points, poles, holes, jumps, its domain."""
