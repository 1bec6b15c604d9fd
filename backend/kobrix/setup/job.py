"""The job file: a vehicle, its brakes as found, and any number of plans."""

from typing import Any, Literal, Self

from pydantic import Field, model_validator

from kobrix.core.errors import NotFound
from kobrix.setup.base import Name, Part, unique
from kobrix.setup.model import Setup, System, Vehicle

AS_FOUND = "as found"


class Plan(Part):
    """A way the brakes may be: its systems, and what it changes on the vehicle (tyres' grip, mass)."""

    name: Name
    systems: list[System] = Field(min_length=1, max_length=4)
    vehicle: dict[str, Any] = {}
    note: str = Field("", max_length=400)


class Job(Part):
    """A whole job: the open file format `kobrix-job`, version 1."""

    format: Literal["kobrix-job"]
    version: Literal[1]
    name: Name
    vehicle: Vehicle
    as_found: Plan
    plans: list[Plan] = Field(default=[], max_length=40)
    tolerances: dict[str, str] = {}
    assumed: list[str] = []
    shelf: list[dict[str, Any]] = []

    @model_validator(mode="after")
    def _check(self) -> Self:
        unique([AS_FOUND, *(p.name for p in self.plans)], "plans", "plan")
        for plan in (self.as_found, *self.plans):
            if plan.vehicle:
                self.setup_of(plan)
        return self

    def setup_of(self, plan: Plan) -> Setup:
        """The setup of a `plan`: the job's vehicle with the plan's overrides, and the plan's systems."""
        vehicle = Vehicle.model_validate({**self.vehicle.model_dump(exclude_none=True), **plan.vehicle})
        return Setup(format="kobrix-setup", version=1, name=f"{self.name}, {plan.name}", vehicle=vehicle, systems=plan.systems)

    def setup(self, name: str) -> Setup:
        """The setup by `name`: "as found" or a plan's. Raises NotFound with the names there are."""
        for plan in (self.as_found, *self.plans):
            if name == plan.name or (plan is self.as_found and name == AS_FOUND):
                return self.setup_of(plan)
        raise NotFound("setup", name, ", ".join([AS_FOUND, *(p.name for p in self.plans)]))
