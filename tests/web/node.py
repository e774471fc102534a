"""Call functions of the front end's TypeScript from Python."""

import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any

from django.conf import settings

WEB = settings.BASE_DIR / "web"

RUNNER = """
import fs from 'node:fs'
import path from 'node:path'
const [, , compiler, source, folder] = process.argv
const ts = (await import(compiler)).default
const seen = new Map()
function compile(file) {
  if (seen.has(file)) return seen.get(file)
  const out = path.join(folder, `${seen.size}.mjs`)
  seen.set(file, out)
  const options = { module: ts.ModuleKind.ESNext, target: ts.ScriptTarget.ES2022 }
  const text = ts.transpileModule(fs.readFileSync(file, 'utf8'), { compilerOptions: options }).outputText
  fs.writeFileSync(out, text.replace(/from '(\\.[^']+)'/g, (_, name) =>
    `from 'file://${compile(path.resolve(path.dirname(file), name) + '.ts')}'`))
  return out
}
const module = await import('file://' + compile(source))
const calls = JSON.parse(fs.readFileSync(0, 'utf8'))
console.log(JSON.stringify(calls.map(([name, ...args]) => module[name](...args) ?? null)))
"""


def call(module: str, calls: list[tuple[Any, ...]]) -> list[Any]:
    """Results of `(function, *arguments)` calls of one module under `web/src`, in one run of Node."""
    with tempfile.TemporaryDirectory() as folder:
        runner = Path(folder, "runner.mjs")
        runner.write_text(RUNNER)
        compiler = WEB / "node_modules" / "typescript" / "lib" / "typescript.js"
        done = subprocess.run(
            ["node", str(runner), str(compiler), str(WEB / "src" / f"{module}.ts"), folder],
            input=json.dumps(calls),
            capture_output=True,
            text=True,
            check=False,
        )
    if done.returncode:
        raise AssertionError(done.stderr)
    results: list[Any] = json.loads(done.stdout)
    return results
