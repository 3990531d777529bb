"""The network for signs: loaded when first asked, given back when nobody has asked for a while."""

from __future__ import annotations

import threading
import time
from importlib import resources
from typing import TYPE_CHECKING, Any

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

IDLE = 180.0  # seconds without use, after which the network is let go


class Net:
    """A model file of Larch, run by onnxruntime."""

    def __init__(self, name: str) -> None:
        self.name = name
        self._session: Any = None
        self._used = 0.0
        self._lock = threading.Lock()

    def ask(self, **given: Array) -> Array:
        """The first of its answers."""
        with self._lock:
            if self._session is None:
                self._session = self._loaded()
                threading.Thread(target=self._let_go, daemon=True).start()
            self._used = time.monotonic()
            session = self._session
        answer: Array = session.run(None, given)[0]
        return answer

    def source(self) -> bytes | str:
        """The model itself, or the path of its file."""
        return resources.files("larch").joinpath(f"assets/recognise/{self.name}").read_bytes()

    def _loaded(self) -> Any:
        import onnxruntime as ort

        options = ort.SessionOptions()
        options.intra_op_num_threads = 2
        options.inter_op_num_threads = 1
        options.enable_cpu_mem_arena = False  # what an arena takes it does not give back
        options.enable_mem_pattern = False  # every line has another size; plans for each cost memory and save no time
        options.log_severity_level = 3
        return ort.InferenceSession(self.source(), options, providers=["CPUExecutionProvider"])

    def _let_go(self) -> None:
        while True:
            time.sleep(IDLE / 4)
            with self._lock:
                if time.monotonic() - self._used > IDLE:
                    self._session = None
                    return


signs = Net("signs.onnx")
