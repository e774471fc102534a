"""What this process worked out lately: consecutive drags, remedies and pages change little of what studies read."""

from keel.analysis.memory import Memory

MEMORY = Memory()
