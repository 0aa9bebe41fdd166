"""Compiled kernels that are kept on the disk, loaded without what only compiling needs.

Numba reads with each kernel its code for being built into others, lists all names in that, imports
the modules that hold what was built into it, and gets everything ready that it compiles with: more
than half of what a small job takes. Here this waits until something is compiled. It leans on how
Numba does that inside; where it does it another way, kernels are loaded as Numba loads them.
"""

import sys

import llvmlite.binding as llvm
from numba.core import environment
from numba.core.caching import FunctionCache
from numba.core.codegen import JITCodeLibrary
from numba.core.runtime import rtsys

__all__ = ["LateCache"]

_IS_AS_KNOWN = (
    all(hasattr(JITCodeLibrary, name) for name in (
        "_unserialize", "_get_module_for_linking", "_finalize_final_module",
        "_set_compiled_object", "enable_object_caching", "get_pointer_to_function",
    ))
    and hasattr(FunctionCache, "_load_overload")
    and hasattr(environment, "_rebuild_env")
)  # fmt: skip
_rebuild_env = getattr(environment, "_rebuild_env", None)


class _LateLibrary(JITCodeLibrary):
    """Machine code, with what others are built of read when it is asked for."""

    _late = None

    @classmethod
    def _unserialize(cls, codegen, state):
        name, kind, data = state
        if kind != "object":
            return super()._unserialize(codegen, state)
        self = codegen.create_library(name)
        self.enable_object_caching()
        self._set_compiled_object(data[0])
        self._late = data[1]
        self._finalize_final_module()
        return self

    def _get_module_for_linking(self):
        if self._shared_module is None and self._late is not None:
            self._shared_module = llvm.parse_bitcode(self._late)
            self._codegen._engine._load_defined_symbols(self._shared_module)
        return super()._get_module_for_linking()

    def get_pointer_to_function(self, name):
        if self._late is None:
            return super().get_pointer_to_function(name)
        # What was kept has the function and its wrapper.
        return self._codegen._engine.get_function_address(name)


def _environment_of(module, constants, name):
    """The constants of a kernel, or of what is built into one, as Numba keeps them.

    The names of the module that it was written in are for code of another kind, which no kernel
    here is; that of Numba's own parts takes a fifth of a second to import.
    """
    known = environment.lookup_environment(name)
    if known is not None or module in sys.modules or not module.startswith("numba."):
        return _rebuild_env(module, constants, name)
    made = environment.Environment({"__name__": module})
    made.consts[:] = constants
    made.env_name = name
    environment.Environment._memo[name] = made
    return made


class LateCache(FunctionCache):
    """Where a kernel is kept."""

    def load_overload(self, sig, target_context):
        """The kernel for some types as it was kept; None where it was not."""
        if not _IS_AS_KNOWN:
            return super().load_overload(sig, target_context)
        rtsys.initialize(target_context)
        codegen = target_context.codegen()
        if type(codegen)._library_class is JITCodeLibrary:
            codegen._library_class = _LateLibrary
        # What is read names the function by where Numba has it. Numba's lock for compiling is held.
        environment._rebuild_env = _environment_of
        try:
            with self._guard_against_spurious_io_errors():
                return self._load_overload(sig, target_context)
        finally:
            environment._rebuild_env = _rebuild_env
