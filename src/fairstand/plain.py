"""Results of the core as plain data and back: JSON for what they say, one buffer a kind of number.

What is written can be read by any program; only dataclasses of the core are made anew from it.
"""

import dataclasses
import enum
import importlib
import json

import numpy as np

__all__ = ["from_arrays", "to_arrays"]

_CORE = "printability."


def to_arrays(value: object) -> dict[str, np.ndarray]:
    """A value as arrays to be kept together.

    Numbers, texts, lists, tuples, dictionaries, arrays, and dataclasses and enumerations of the
    core, within each other. Arrays are laid end to end by their kind of number.

    Raises
    ------
    TypeError
        For anything else.
    """
    buffers: dict[str, list[np.ndarray]] = {}
    sizes: dict[str, int] = {}

    def plain(v):
        if v is None or isinstance(v, bool | str) or type(v) in (int, float):
            return v
        if isinstance(v, enum.Enum):
            return {"e": _name(type(v)), "v": plain(v.value)}
        if isinstance(v, np.generic):
            return plain(v.item())
        if isinstance(v, int | float):
            return v
        if isinstance(v, np.ndarray):
            kind = v.dtype.str
            at = sizes.get(kind, 0)
            buffers.setdefault(kind, []).append(np.ascontiguousarray(v).ravel())
            sizes[kind] = at + v.size
            return {"a": [kind, list(v.shape), at]}
        if isinstance(v, list):
            return [plain(one) for one in v]
        if isinstance(v, tuple):
            return {"t": [plain(one) for one in v]}
        if isinstance(v, dict):
            return {"d": [[plain(key), plain(one)] for key, one in v.items()]}
        if dataclasses.is_dataclass(v):
            own = {f.name: plain(getattr(v, f.name)) for f in dataclasses.fields(v) if f.init}
            return {"c": _name(type(v)), "f": own}
        raise TypeError(f"A {type(v).__name__} cannot be kept.")

    text = json.dumps(plain(value)).encode()
    out = {f"buffer {kind}": np.concatenate(parts) for kind, parts in buffers.items()}
    return {"json": np.frombuffer(text, np.uint8), **out}


def from_arrays(arrays: dict[str, np.ndarray]) -> object:
    """What `to_arrays` was given.

    Raises
    ------
    ValueError
        If the arrays do not say.
    """

    def value(v):
        if isinstance(v, list):
            return [value(one) for one in v]
        if not isinstance(v, dict):
            return v
        if "a" in v:
            kind, shape, at = v["a"]
            size = int(np.prod(shape))
            return arrays[f"buffer {kind}"][at : at + size].reshape(shape)
        if "t" in v:
            return tuple(value(one) for one in v["t"])
        if "d" in v:
            return {value(key): value(one) for key, one in v["d"]}
        if "e" in v:
            return _class(v["e"])(value(v["v"]))
        return _class(v["c"])(**{name: value(one) for name, one in v["f"].items()})

    try:
        return value(json.loads(bytes(arrays["json"])))
    except (KeyError, TypeError, AttributeError, ImportError, IndexError) as error:
        raise ValueError("That is not what was kept.") from error


def _name(cls: type) -> str:
    if not cls.__module__.startswith(_CORE):
        raise TypeError(f"A {cls.__name__} cannot be kept.")
    return f"{cls.__module__}:{cls.__qualname__}"


def _class(name: str) -> type:
    module, _, qualname = name.partition(":")
    if not module.startswith(_CORE):
        raise ValueError("That is not what was kept.")
    cls = getattr(importlib.import_module(module), qualname)
    if not (dataclasses.is_dataclass(cls) or issubclass(cls, enum.Enum)):
        raise ValueError("That is not what was kept.")
    return cls
