"""Trains the network that says which sign a group of strokes is, and writes it as ONNX.

python train.py OUT.onnx TEST.npz TRAINING.npz …
"""

from __future__ import annotations

import argparse
import time
from pathlib import Path
from typing import Any

import numpy as np
import torch
from grammar import ALPHABET
from torch import nn

CLASSES = len(ALPHABET) + 1
UNTOLD = 0.15  # of the samples of which only the picture is shown


class Reader(nn.Module):
    """Pictures, how it was written, and a few facts, to log-probabilities."""

    def __init__(self, plain: bool = False, narrow: bool = False) -> None:
        """plain: without normalising batches, as a network is that was written as ONNX, where it is folded into weights.
        narrow: with half the weights, as the first one had."""
        super().__init__()

        def conv(inside: int, out: int, size: int, stride: int = 1) -> list[nn.Module]:
            if plain:
                return [nn.Conv2d(inside, out, size, stride, size // 2), nn.Identity(), nn.ReLU(inplace=True)]
            return [nn.Conv2d(inside, out, size, stride, size // 2, bias=False), nn.BatchNorm2d(out), nn.ReLU(inplace=True)]

        one, two, wide, last = (24, 48, 72, 224) if narrow else (32, 56, 96, 288)
        self.see = nn.Sequential(
            *conv(3, one, 5, 2),
            *conv(one, two, 3),
            nn.MaxPool2d(2),
            *conv(two, wide, 3),
            *([] if narrow else conv(wide, wide, 3)),
            nn.MaxPool2d(2),
            *conv(wide, wide, 3),
            nn.Flatten(),
        )
        self.follow = nn.Sequential(
            nn.Conv1d(5, 32, 5, padding=2),
            nn.ReLU(),
            nn.Conv1d(32, 48, 5, 2, 2),
            nn.ReLU(),
            nn.Conv1d(48, 48, 3, 2, 1),
            nn.ReLU(),
        )
        self.say = nn.Sequential(
            nn.Dropout(0.3), nn.Linear(wide * 16 + 96 + 6, last), nn.ReLU(), nn.Dropout(0.3), nn.Linear(last, CLASSES)
        )

    def forward(self, images: Any, runs: Any, facts: Any) -> Any:
        way = self.follow(runs)
        way = torch.cat([way.amax(dim=2), way.mean(dim=2)], dim=1)
        if self.training:  # the order in which strokes came says nothing of a corrected or a thinned sign
            way = way * (torch.rand(len(way), 1) > UNTOLD)
        both = torch.cat([self.see(images), way, facts], dim=1)
        return torch.log_softmax(self.say(both), dim=1)


def begun_from(path: Path) -> Reader:
    """To be trained further."""
    import onnx

    weights = [onnx.numpy_helper.to_array(part).copy() for part in onnx.load(path).graph.initializer]
    named = {part.name: k for k, part in enumerate(onnx.load(path).graph.initializer)}
    folded = iter(weights[k] for name, k in named.items() if name.startswith("onnx::"))
    model = Reader(plain=True, narrow=len(weights[named["say.4.weight"]][0]) == 224)
    with torch.no_grad():
        for name, own in model.named_parameters():
            own.copy_(torch.from_numpy(weights[named[name]] if name in named else next(folded)))
    return model


def batch(data: dict[str, Any], at: Any) -> tuple[Any, ...]:
    return (
        torch.from_numpy(data["images"][at]).float().div_(255).contiguous(memory_format=torch.channels_last),
        torch.from_numpy(data["runs"][at].astype(np.float32)),
        torch.from_numpy(data["facts"][at].astype(np.float32)),
        torch.from_numpy(data["labels"][at].astype(np.int64)),
    )


def gathered(paths: list[Path]) -> dict[str, Any]:
    """The samples of all files one after the other; of one file at a time there is a second copy in memory."""
    labels = [np.load(path)["labels"] for path in paths]
    data: dict[str, Any] = {"labels": np.concatenate(labels)}
    at = 0
    for path, part in zip(paths, labels, strict=True):
        with np.load(path) as file:
            for key in ("images", "runs", "facts"):
                own = file[key]
                if key not in data:
                    data[key] = np.empty((len(data["labels"]), *own.shape[1:]), own.dtype)
                data[key][at : at + len(part)] = own
        at += len(part)
    return data


def tested(model: Reader, data: dict[str, Any]) -> tuple[float, float]:
    """Shares right: of signs, and of whether it is one."""
    model.eval()
    right, none = [], []
    with torch.no_grad():
        for start in range(0, len(data["labels"]), 2048):
            *given, label = batch(data, slice(start, start + 2048))
            found = model(*given).argmax(dim=1)
            signs = label != CLASSES - 1
            right.append((found == label)[signs].numpy())
            none.append(((found == CLASSES - 1) == ~signs).numpy())
    model.train()
    return float(np.concatenate(right).mean()), float(np.concatenate(none).mean())


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("out", type=Path)
    parser.add_argument("test", type=Path)
    parser.add_argument("training", type=Path, nargs="+")
    parser.add_argument("--minutes", type=float, default=20)
    parser.add_argument("--narrow", action="store_true")
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--begin", type=Path, help="a network (.onnx) to be trained further, at a fifth of the rate")
    args = parser.parse_args()
    torch.manual_seed(args.seed)
    rng = np.random.default_rng(args.seed)
    test = dict(np.load(args.test))
    data = gathered(args.training)
    model = (begun_from(args.begin) if args.begin else Reader(narrow=args.narrow)).to(memory_format=torch.channels_last)
    rate = 4e-4 if args.begin else 2e-3
    calm = torch.optim.swa_utils.AveragedModel(
        model, multi_avg_fn=torch.optim.swa_utils.get_ema_multi_avg_fn(0.998), use_buffers=True
    )
    print(sum(p.numel() for p in model.parameters()), "weights,", len(data["labels"]), "samples", flush=True)
    optimiser = torch.optim.AdamW(model.parameters(), lr=rate, weight_decay=1e-4)
    begun, step, size = time.time(), 0, 256
    total = args.minutes * 60
    order = rng.permutation(len(data["labels"]))
    place = 0
    lost: list[float] = []
    while (share := (time.time() - begun) / total) < 1:
        for group in optimiser.param_groups:
            group["lr"] = rate * min(1.0, (step + 1) / 300) * max(0.02, (1 - share)) ** 1.0
        if place + size > len(order):
            order, place = rng.permutation(len(order)), 0
        images, runs, facts, labels = batch(data, np.sort(order[place : place + size]))
        place += size
        optimiser.zero_grad()
        loss = nn.functional.nll_loss(model(images, runs, facts), labels)
        loss.backward()
        optimiser.step()
        calm.update_parameters(model)
        lost.append(loss.item())
        step += 1
        if step % 800 == 0:
            now = f"{time.time() - begun:6.0f} s  step {step}  loss {np.mean(lost[-400:]):.3f}"
            print(now, tested(calm.module, test), flush=True)
            export(calm.module, args.out)
    print("test", tested(calm.module, test))
    export(calm.module, args.out)


def export(model: Reader, out: Path) -> None:
    model.eval()
    given = (torch.zeros(2, 3, 32, 32), torch.zeros(2, 5, 40), torch.zeros(2, 6))
    torch.onnx.export(
        model,
        given,
        str(out),
        input_names=["images", "runs", "facts"],
        output_names=["signs"],
        dynamic_axes={name: {0: "n"} for name in ("images", "runs", "facts", "signs")},
        opset_version=17,
        dynamo=False,
    )
    model.train()


if __name__ == "__main__":
    main()
