"""Prove, as the registry knows it."""

from kobrix.stages.common import Stage
from kobrix.stages.prove.routes import router
from kobrix.stages.prove.service import shown, standing
from kobrix.stages.prove.shapes import ProveView

PROVE = Stage("Prove", "prove", router, standing, shown, ProveView)
