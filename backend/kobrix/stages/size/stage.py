"""Size, as the registry knows it."""

from kobrix.stages.common import Stage
from kobrix.stages.size.routes import router
from kobrix.stages.size.service import shown, standing
from kobrix.stages.size.shapes import SizeView

SIZE = Stage("Size", "size", router, standing, shown, SizeView)
