"""Bed, as the registry knows it."""

from kobrix.stages.bed.routes import router
from kobrix.stages.bed.service import shown, standing
from kobrix.stages.bed.shapes import BedView
from kobrix.stages.common import Stage

BED = Stage("Bed", "bed", router, standing, shown, BedView)
