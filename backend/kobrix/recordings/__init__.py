"""What a logger wrote, read into columns: CSV of any common make, GPX tracks, NMEA sentences."""

LARGEST = 64_000_000  # bytes of one recording
