"""Shapes whole recordings: a recording and a profile in, a trace out."""

from wendonic.batch.run import Engine
from wendonic.batch.trace import shape
from wendonic.batch.write import TRACE_ENDINGS, write_trace

__all__ = ["TRACE_ENDINGS", "Engine", "shape", "write_trace"]
