"""Will it go together: clearances, joints, lines, hoses, plates, donor parts, the parking brake.

Lengths are in millimetres here, as on the drawings and gauges that the answers are held against. Each function takes plain
numbers and records, and returns the figures by the names that the open format gives them.
"""
