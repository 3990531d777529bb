"""Faults: failing disks, killed processes, power cuts, hostile input."""
