"""Networks made one that answers with the mean of what all say, in logarithms: they err at different places.

python joined.py OUT.onnx ONE.onnx OTHER.onnx …

Later networks may know fewer signs than the first (the alphabet grew at its end); what they don't know is left to the first.
Weights are kept in half precision.
"""

from __future__ import annotations

import sys
from pathlib import Path

import numpy as np
import onnx
from onnx import compose, helper, numpy_helper

LARGE = 64  # weights; smaller arrays are kept as they are


def _answers(model: onnx.ModelProto) -> int:
    return int(model.graph.output[0].type.tensor_type.shape.dim[1].dim_value)


def joined(models: list[onnx.ModelProto]) -> onnx.ModelProto:
    marks = [f"{chr(ord('a') + k)}." for k in range(len(models))]
    parts = [compose.add_prefix(model, mark, rename_inputs=False).graph for model, mark in zip(models, marks, strict=True)]
    nodes = [node for part in parts for node in part.node]
    weights = [one for part in parts for one in part.initializer]
    first, said = _answers(models[0]), [f"{mark}signs" for mark in marks]
    for k, mark in enumerate(marks[1:], 1):
        own = _answers(models[k])
        if own == first:
            continue
        places = [*range(own - 1), *range(own + own - 1, own + first - 1), own - 1]  # the last answer is "none of these"
        weights.append(numpy_helper.from_array(np.array(places, dtype=np.int64), f"{mark}places"))
        nodes.append(helper.make_node("Concat", [said[k], said[0]], [f"{mark}both"], axis=1))
        nodes.append(helper.make_node("Gather", [f"{mark}both", f"{mark}places"], [f"{mark}all"], axis=1))
        said[k] = f"{mark}all"
    nodes.append(helper.make_node("Mean", said, ["mean"]))
    nodes.append(helper.make_node("LogSoftmax", ["mean"], ["signs"], axis=1))
    kept, wider = [], []
    for one in weights:
        values = numpy_helper.to_array(one)
        if values.dtype == np.float32 and values.size > LARGE:
            kept.append(numpy_helper.from_array(values.astype(np.float16), f"{one.name}.half"))
            wider.append(helper.make_node("Cast", [f"{one.name}.half"], [one.name], to=onnx.TensorProto.FLOAT))
        else:
            kept.append(one)
    graph = helper.make_graph([*wider, *nodes], "signs", list(models[0].graph.input), list(models[0].graph.output), kept)
    made = helper.make_model(graph, opset_imports=models[0].opset_import, ir_version=models[0].ir_version)
    onnx.checker.check_model(made)
    return made


if __name__ == "__main__":
    out, *given = map(Path, sys.argv[1:])
    onnx.save(joined([onnx.load(path) for path in given]), out)
