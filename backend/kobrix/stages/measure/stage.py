"""Measure, as the registry knows it."""

from kobrix.stages.common import Stage
from kobrix.stages.measure.routes import router
from kobrix.stages.measure.service import shown, standing
from kobrix.stages.measure.shapes import MeasureView

MEASURE = Stage("Measure", "measure", router, standing, shown, MeasureView)
