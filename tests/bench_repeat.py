"""Whether the tests wait for states and not for times: the whole of them again and again, with a busy loop on every core beside them."""

import os
import subprocess
import sys
import time

from tests.browser import ROOT

ROUNDS = 10


def repeat() -> None:
    """Ten times `./run again` on a machine under load: how many passed, and what each took."""
    passed = 0
    for n in range(1, ROUNDS + 1):
        busy = [subprocess.Popen([sys.executable, "-c", "while True: pass"]) for _ in range(os.cpu_count() or 1)]
        began = time.perf_counter()
        try:
            done = subprocess.run([str(ROOT / "run"), "again"], cwd=ROOT, capture_output=True, text=True, check=False)
        finally:
            for process in busy:
                process.kill()
                process.wait()
        passed += done.returncode == 0
        print(f"  round {n}: {'passed' if done.returncode == 0 else 'FAILED'} in {time.perf_counter() - began:.0f} s", flush=True)
        if done.returncode:
            print("\n".join(f"    {row}" for row in done.stdout.splitlines() if row.startswith(("FAIL", "ERROR"))), flush=True)
    print(f"{passed} of {ROUNDS} rounds passed beside {os.cpu_count()} busy loops")
