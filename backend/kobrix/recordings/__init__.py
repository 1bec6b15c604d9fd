"""What a logger wrote, read into columns: CSV of any common make, GPX tracks, NMEA sentences."""
