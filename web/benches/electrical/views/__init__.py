"""Power: the circuit drawn, measured on, and the fault found by following the volts."""
