"""Call functions of the front end's TypeScript from Python: Vite loads them in Node as it would for the page."""

import atexit
import json
import subprocess
from functools import cache
from typing import Any

from django.conf import settings

WEB = settings.BASE_DIR / "web"

RUNNER = """
import { createInterface } from 'node:readline'
import { createServer } from 'vite'
const vite = await createServer({
  server: { middlewareMode: true, ws: false, watch: null },
  appType: 'custom', logLevel: 'error', optimizeDeps: { noDiscovery: true },
})
console.log = console.error
for await (const line of createInterface({ input: process.stdin })) {
  let answer
  try {
    const [source, calls] = JSON.parse(line)
    const module = await vite.ssrLoadModule(source)
    const results = []
    for (const [name, ...args] of calls) results.push((await module[name](...args)) ?? null)
    answer = { results }
  } catch (error) {
    answer = { error: String(error.stack ?? error) }
  }
  process.stdout.write(JSON.stringify(answer) + '\\n')
}
"""


@cache
def _node() -> subprocess.Popen[str]:
    """Node with Vite in it, started once and asked line by line."""
    node = subprocess.Popen(
        ["node", "--input-type=module", "-e", RUNNER],
        cwd=WEB,
        stdin=subprocess.PIPE,
        stdout=subprocess.PIPE,
        text=True,
    )
    atexit.register(node.kill)
    return node


def call(module: str, calls: list[tuple[Any, ...]]) -> list[Any]:
    """Results of `(function, *arguments)` calls of one module.

    The module is one under `web/src`, or one under `web/tests` where its name has an ending.
    """
    source = WEB / "tests" / module if "." in module else WEB / "src" / f"{module}.ts"
    node = _node()
    assert node.stdin is not None and node.stdout is not None
    node.stdin.write(json.dumps([str(source), calls]) + "\n")
    node.stdin.flush()
    answer = json.loads(node.stdout.readline())
    if "error" in answer:
        raise AssertionError(answer["error"])
    results: list[Any] = answer["results"]
    return results
