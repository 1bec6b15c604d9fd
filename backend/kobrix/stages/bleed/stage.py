"""Bleed, as the registry knows it."""

from kobrix.stages.bleed.routes import router
from kobrix.stages.bleed.service import shown, standing
from kobrix.stages.bleed.shapes import BleedView
from kobrix.stages.common import Stage

BLEED = Stage("Bleed", "bleed", router, standing, shown, BleedView)
