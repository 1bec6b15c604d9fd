"""Line devices between the cylinder and the wheel brakes, each a curve of outlet over inlet pressure.

Devices stand in order from the cylinder; two proportioning valves in series multiply. Residual valves, line locks,
park valves and switches do not change the pressure while the pedal is pressed: rules about them are judgements.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kobrix.core.numerics.arrays import Floats, Number


@dataclass(frozen=True)
class Metering:
    """Holds the pressure back: nothing below `hold` [Pa], all of it above `blend` [Pa], straight between."""

    hold: Number
    blend: Number


@dataclass(frozen=True)
class Proportioning:
    """Passes all up to `knee` [Pa] and `slope` [1] of what is above it.

    `bypass`: a combination valve that passes everything when the front circuit is lost.
    """

    knee: Number
    slope: Number
    bypass: bool = False


@dataclass(frozen=True)
class Limiting:
    """Lets the pressure rise to `setting` [Pa] and no further (a regulator does the same)."""

    setting: Number


@dataclass(frozen=True)
class LoadSensing:
    """A proportioning valve whose knee follows the static rear axle load.

    `knee` [Pa] at the `reference` [N]; `coefficient` [Pa/N]; `slope` [1].
    """

    knee: Number
    coefficient: Number
    reference: Number
    slope: Number


@dataclass(frozen=True)
class DecelSensing:
    """A proportioning valve that begins to work at a deceleration: `decel` [g]; `slope` [1]."""

    decel: Number
    slope: Number


@dataclass(frozen=True)
class Passive:
    """A device that leaves the pressure as it is: `kind`, and its `pressure` [Pa] where it has one."""

    kind: Literal["residual", "line_lock", "park_valve", "switch"]
    pressure: Number | None = None


Device = Metering | Proportioning | Limiting | LoadSensing | DecelSensing | Passive


def knee_for_load(device: LoadSensing, rear_load: Number) -> Floats:
    """Knee [Pa] of a load sensing `device` at a static `rear_load` [N], never below 0: p₀ + c·(W − W_ref).

    Any shape. Source: common practice.
    """
    return np.maximum(0.0, device.knee + device.coefficient * (np.asarray(rear_load) - device.reference))


def settled(devices: Sequence[Device], rear_load: Number) -> tuple[Device, ...]:
    """`devices` with every load sensing valve settled to a proportioning one at `rear_load` [N]. Source: model.

    A deceleration sensing valve stays as it is, which is open, until its knee is known. Any shape; the result is used in
    place of `devices` [list] for that load state.
    """
    return tuple(Proportioning(knee_for_load(d, rear_load), d.slope) if isinstance(d, LoadSensing) else d for d in devices)


def set_at(devices: Sequence[Device], inlets: dict[int, Number]) -> tuple[Device, ...]:
    """`devices` [list] with every deceleration sensing valve settled to a knee: `inlets` {place in the list: [Pa]}.

    Any shape. Source: model: the knee is the inlet pressure at which the vehicle reaches the valve's deceleration.
    """
    return tuple(Proportioning(inlets[i], d.slope) if isinstance(d, DecelSensing) else d for i, d in enumerate(devices))


def ways(devices: Sequence[Device]) -> list[Sequence[Device]]:
    """`devices` [list] as they are, and after them, if it differs, as they are when the front circuit is lost.

    A combination valve with a bypass then passes everything. Source: common practice.
    """
    passing = tuple(d for d in devices if not (isinstance(d, Proportioning) and d.bypass))
    return [devices] if len(passing) == len(devices) else [devices, passing]


def changes_pressure(device: Device) -> bool:
    """Whether `device` [record] changes the pressure while the pedal is pressed. Source: common practice."""
    return not isinstance(device, Passive)


def _outlet(device: Device, pressure: Number) -> Number:
    if isinstance(device, Metering):
        rise = device.blend * (pressure - device.hold) / (device.blend - device.hold)
        return np.where(np.asarray(pressure) >= device.blend, pressure, np.maximum(0.0, rise))
    if isinstance(device, Proportioning):
        return np.minimum(pressure, device.knee + device.slope * (pressure - device.knee))
    if isinstance(device, Limiting):
        return np.minimum(pressure, device.setting)
    return pressure


def _inlet(device: Device, pressure: Number) -> Number:
    """Least inlet for an outlet `pressure`; where it is never reached, the inlet at which the outlet stops rising."""
    if isinstance(device, Metering):
        rise = device.hold + pressure * (device.blend - device.hold) / device.blend
        return np.where(np.asarray(pressure) >= device.blend, pressure, rise)
    if isinstance(device, Proportioning):
        slope = np.asarray(device.slope, dtype=np.float64)
        above = np.where(slope > 0.0, (pressure - device.knee) / np.where(slope > 0.0, slope, 1.0), 0.0)
        return np.where(np.asarray(pressure) <= device.knee, pressure, device.knee + above)
    if isinstance(device, Limiting):
        return np.minimum(pressure, device.setting)
    return pressure


def outlet(devices: Sequence[Device], pressure: Number) -> Number:
    """Outlet pressure [Pa] of settled `devices` [list, from the cylinder on] at an inlet `pressure` [Pa].

    Any shape. Source: each record's own docstring.

    >>> valve = [Proportioning(3e6, 0.35)]
    >>> [round(float(outlet(valve, p)) / 1e6, 3) for p in (2.5e6, 7e6, 10e6)]
    [2.5, 4.4, 5.45]
    """
    for device in devices:
        pressure = _outlet(device, pressure)
    return pressure


def inlet(devices: Sequence[Device], pressure: Number) -> Number:
    """Least inlet pressure [Pa] of `devices` [list] that gives an outlet `pressure` [Pa]; the inverse of `outlet`.

    Where the outlet is never reached: the inlet at which it stops rising. Any shape. Source: as `outlet`.

    >>> round(float(inlet([Proportioning(3e6, 0.35)], 4.0e6)) / 1e6, 3)
    5.857
    """
    for device in reversed(devices):
        pressure = _inlet(device, pressure)
    return pressure


def knees(devices: Sequence[Device]) -> list[Number]:
    """Inlet pressures [Pa] at which the curve of settled `devices` [list] bends, in no order. Source: as `outlet`."""
    bends: list[Number] = []
    for place, device in enumerate(devices):
        own: list[Number] = []
        if isinstance(device, Metering):
            own = [device.hold, device.blend]
        elif isinstance(device, Proportioning):
            own = [device.knee]
        elif isinstance(device, Limiting):
            own = [device.setting]
        bends += [inlet(devices[:place], bend) for bend in own]
    return bends
