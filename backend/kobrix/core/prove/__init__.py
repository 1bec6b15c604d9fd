"""Did it get better, and how sure is that: bleeding, bedding, stops, their comparison, and what they teach the model."""
