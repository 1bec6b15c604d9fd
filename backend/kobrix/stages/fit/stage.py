"""Fit, as the registry knows it."""

from kobrix.stages.common import Stage
from kobrix.stages.fit.routes import router
from kobrix.stages.fit.service import shown, standing
from kobrix.stages.fit.shapes import FitView

FIT = Stage("Fit", "fit", router, standing, shown, FitView)
