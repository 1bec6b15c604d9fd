"""Match, as the registry knows it: a page of Size's, with no place of its own in the strip."""

from kobrix.stages.common import Stage
from kobrix.stages.match.routes import router

MATCH = Stage("Match", "match", router)
