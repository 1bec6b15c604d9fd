-- Whose step it is: the device of the network that made it, or the machine itself, while such devices are let in; null where there are none.
ALTER TABLE changes ADD COLUMN made_by TEXT;
