"""Everything that is computed: no Qt, no hidden files, no clock, no global random."""
