/** A document in Node, and what the page asks of a browser that jsdom hasn't. */
import { JSDOM } from 'jsdom'

const dom = new JSDOM('<!doctype html><html lang="en"><body><div id="root"></div></body></html>', {
  url: 'http://bench.test/',
  pretendToBeVisual: true,
})
const { window } = dom
const OF_THE_PAGE = ['Event', 'EventTarget', 'CustomEvent', 'navigator', 'localStorage', 'Blob', 'File', 'DOMException']

for (const name of Object.getOwnPropertyNames(window))
  if (!(name in globalThis) || OF_THE_PAGE.includes(name))
    Object.defineProperty(globalThis, name, { value: window[name], configurable: true, writable: true })
Object.assign(globalThis, { window, document: window.document })

/** Everything lies in a window of one size; nothing is laid out. Where there is no size nothing is drawn. */
globalThis.screenSize = { width: 1280, height: 800 }
globalThis.ResizeObserver = class {
  constructor(told) {
    this.told = told
  }
  observe(target) {
    this.told([{ target, contentRect: globalThis.screenSize }], this)
  }
  unobserve() {}
  disconnect() {}
}
window.ResizeObserver = globalThis.ResizeObserver
window.matchMedia = globalThis.matchMedia = () => ({
  matches: false,
  addEventListener() {},
  removeEventListener() {},
})
window.Element.prototype.scrollIntoView = () => undefined
window.HTMLCanvasElement.prototype.getContext = () => null

/** What was kept from the page by pressing a link to a file. */
globalThis.keptFiles = []
URL.createObjectURL = (blob) => `blob:${globalThis.keptFiles.push(blob)}`
URL.revokeObjectURL = () => undefined

const bytesOf = (body) =>
  new Promise((resolve) => {
    const reader = new window.FileReader()
    reader.onload = () => resolve(Buffer.from(reader.result))
    reader.readAsArrayBuffer(body)
  })

/** A request of the page, answered by whoever drives it. */
globalThis.Request = class extends Request {
  constructor(input, init) {
    super(typeof input === 'string' ? new URL(input, window.location.href).href : input, init)
  }
}
globalThis.fetch = window.fetch = async (input, init = {}) => {
  const request = input instanceof Request ? input : null
  const { pathname, search } = new URL(request?.url ?? input, window.location.href)
  const body = request
    ? Buffer.from(await request.arrayBuffer())
    : init.body instanceof window.Blob
      ? await bytesOf(init.body)
      : Buffer.from(init.body ?? '')
  const reply = await globalThis.askServer({
    method: request?.method ?? init.method ?? 'GET',
    path: pathname + search,
    body: body.toString('base64'),
  })
  if (reply.away) throw new TypeError('fetch failed')
  const content = reply.status === 204 ? null : Buffer.from(reply.body, 'base64')
  return new Response(content, { status: reply.status, headers: reply.headers })
}
