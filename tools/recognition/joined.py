"""Two networks made one that answers with the mean of what both say, in logarithms: they err at different places.

python joined.py ONE.onnx OTHER.onnx OUT.onnx
"""

from __future__ import annotations

import sys
from pathlib import Path

import onnx
from onnx import compose, helper


def joined(one: onnx.ModelProto, other: onnx.ModelProto) -> onnx.ModelProto:
    parts = [compose.add_prefix(model, mark, rename_inputs=False) for model, mark in ((one, "a."), (other, "b."))]
    given = list(one.graph.input)
    mean = [
        helper.make_node("Mean", ["a.signs", "b.signs"], ["mean"]),
        helper.make_node("LogSoftmax", ["mean"], ["signs"], axis=1),
    ]
    graph = helper.make_graph(
        [*parts[0].graph.node, *parts[1].graph.node, *mean],
        "signs",
        given,
        list(one.graph.output),
        [*parts[0].graph.initializer, *parts[1].graph.initializer],
    )
    made = helper.make_model(graph, opset_imports=one.opset_import, ir_version=one.ir_version)
    onnx.checker.check_model(made)
    return made


if __name__ == "__main__":
    first, second, out = map(Path, sys.argv[1:4])
    onnx.save(joined(onnx.load(first), onnx.load(second)), out)
