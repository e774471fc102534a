/** Loads the front end's modules in Node as Vite would for the page, and calls their functions line by line.
 *
 * A line in is `[module, calls]` or `{reply}`; a line out is `{results}`, `{error}` or, where the page asks its server,
 * `{request}`. With `page` as argument there is a document to draw on.
 */
import { createInterface } from 'node:readline'
import { createServer, createServerModuleRunner } from 'vite'

const waiting = new Map()
const say = (line) => process.stdout.write(JSON.stringify(line) + '\n')
console.log = console.error
let asked = 0

/** The page's server is whoever started this. */
globalThis.askServer = (request) =>
  new Promise((resolve) => {
    waiting.set(++asked, resolve)
    say({ request: { ...request, id: asked } })
  })

if (process.argv[2] === 'page') await import('./dom.mjs')
const vite = await createServer({
  server: { middlewareMode: true, ws: false, watch: null },
  appType: 'custom',
  logLevel: 'error',
  optimizeDeps: { noDiscovery: true },
})
const modules = createServerModuleRunner(vite.environments.ssr, { hmr: false })

/** A page that is opened anew begins with modules of its own. */
globalThis.forgetModules = () => modules.clearCache()

async function answer([source, calls]) {
  try {
    const results = []
    for (const [name, ...args] of calls) results.push((await (await modules.import(source))[name](...args)) ?? null)
    say({ results })
  } catch (error) {
    say({ error: String(error.stack ?? error) })
  }
}

createInterface({ input: process.stdin }).on('line', (line) => {
  const said = JSON.parse(line)
  if (Array.isArray(said)) void answer(said)
  else waiting.get(said.reply.id)(said.reply)
})
process.stdin.on('end', () => process.exit())
