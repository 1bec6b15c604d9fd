"""Build, as the registry knows it."""

from kobrix.stages.build.routes import router
from kobrix.stages.build.service import shown, standing
from kobrix.stages.build.shapes import BuildView
from kobrix.stages.common import Stage

BUILD = Stage("Build", "build", router, standing, shown, BuildView)
