"""The physics of brakes and the rules of practice, in SI units, without any interface code.

Read in the order of the force line: control, booster, cylinder, valves, lines, disc, drum, tyres,
vehicle; then chain (one push from foot to road), travel, failures, judgements.

Every function takes floats or NumPy arrays and broadcasts. Arrays that describe setups, load states
or failures keep their axes in front; the last axis is always the knots (or samples) of the push.
"""
