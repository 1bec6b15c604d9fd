-- When a job was put away: it is kept for thirty days from then. What was put away before this was known has them from now.
ALTER TABLE jobs ADD COLUMN gone_at TEXT;
UPDATE jobs SET gone_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now') WHERE gone = 1;
