-- What a search found is told otherwise now (edits by JSON Pointer): what an older Kobrix found is asked again.
DELETE FROM searches;
