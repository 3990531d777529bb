"""placeholder"""

PARTING = ()
