/** The whole application on a document in Node, and what a person does there. */
import userEvent from '@testing-library/user-event'
import type { Root } from 'react-dom/client'
import { useWork } from '../src/work/store'

declare function forgetModules(): void
declare const keptFiles: Blob[]
declare const screenSize: { width: number; height: number }

const person = userEvent.setup({ delay: null, pointerEventsCheck: 0 })
const page = globalThis as typeof globalThis & { opened?: Root; thrown?: string[]; listens?: boolean }

/** Opens an address as if typed: modules, stores and timers begin anew; what is kept on the device stays. */
export async function open(path: string, drawn = true) {
  Object.assign(screenSize, drawn ? { width: 1280, height: 800 } : { width: 0, height: 0 })
  page.opened?.unmount()
  page.thrown = []
  if (!page.listens)
    window.addEventListener('error', (event) => page.thrown?.push(String(event.error?.stack ?? event.message)))
  page.listens = true
  window.history.replaceState(null, '', path)
  forgetModules()
  const { mount } = (await import('../src/app/mount')) as typeof import('../src/app/mount')
  const place = document.createElement('div')
  place.id = 'root'
  document.body.replaceChildren(place)
  page.opened = mount(place)
}

/** Leaves it; what threw while it was open. */
export function leave(): string[] {
  page.opened?.unmount()
  page.opened = undefined
  localStorage.clear()
  return page.thrown ?? []
}

const plain = (text: string | null) =>
  (text ?? '')
    .replaceAll(/[*\u2009\u00a0\u200b]/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim()
const isShown = (element: Element) => !element.closest('[aria-hidden=true]')
const named = (element: Element) => plain(element.getAttribute('aria-label') ?? element.textContent)

/** Everything in a part of the page that fits a selector; the topmost dialog's, where one is open. */
function all(selector: string, within: string): HTMLElement[] {
  const place = within === 'body' ? ([...document.querySelectorAll('[role=dialog]')].at(-1) ?? document.body) : null
  const places = place ? [place] : [...document.querySelectorAll(within)]
  return places.flatMap((part) => [...part.querySelectorAll<HTMLElement>(selector)]).filter(isShown)
}

function one(found: HTMLElement[], what: string, nth = 0): HTMLElement {
  const element = found.at(nth)
  if (!element) throw new Error(`there is no ${what}`)
  return element
}

const PRESSED = 'button, a, summary, [role=button], [role=tab], [role=menuitem]'
const button = (text: string, within: string, nth: number) =>
  one(
    all(PRESSED, within).filter((element) => named(element) === text),
    `button “${text}” among ${all(PRESSED, within).map(named).join(' | ')}`,
    nth,
  )

/** What stands in a labelled field: an input, a box, or what opens a list. */
function labelled(label: string, within: string, nth: number): HTMLElement {
  const known = labels()
  const fields = all('input:not([type=range]), textarea, [role=combobox]', within)
  const names = fields.map((field) => labelOf(field, known))
  return one(
    fields.filter((_, place) => names[place] === label),
    `field “${label}” among ${names.join(' | ')}`,
    nth,
  )
}

/** What each field is called: labels by what they are for, looked up once a question. */
const labels = () =>
  new Map([...document.querySelectorAll('label[for]')].map((label) => [label.getAttribute('for'), label]))

function labelOf(element: Element, known = labels()): string {
  const said = element.getAttribute('aria-label')
  if (said) return plain(said)
  const names = element.getAttribute('aria-labelledby')?.split(' ')[0]
  const by = (names && document.getElementById(names)) || known.get(element.id) || element.closest('label')
  return by ? plain(by.textContent) : ''
}

export const text = (within: string) =>
  plain([...document.querySelectorAll(within)].map((part) => part.textContent).join(' '))

export const count = (selector: string) => document.querySelectorAll(selector).length
export const value = (label: string, within: string, nth: number) => {
  const element = labelled(label, within, nth)
  return element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement ? element.value : named(element)
}

/** What is said under a field. */
export const said = (label: string, within: string, nth: number) =>
  (labelled(label, within, nth).getAttribute('aria-describedby') ?? '')
    .split(' ')
    .map((id) => plain(document.getElementById(id)?.textContent ?? ''))
    .join(' ')

export function pressed(name: string, within: string, nth: number) {
  const element = button(name, within, nth)
  if (isOff(element)) throw new Error(`“${name}” can’t be pressed`)
  return person.click(element)
}
export const clicked = (selector: string) =>
  person.click(one([...document.querySelectorAll<HTMLElement>(selector)], selector))
const isOff = (element: Element) => element.matches(':disabled, [aria-disabled=true]')
export const isEnabled = (name: string, within: string) => !isOff(button(name, within, 0))

export async function typed(label: string, words: string, within: string, nth: number) {
  const field = labelled(label, within, nth) as HTMLInputElement
  await person.click(field)
  field.select()
  await (words ? person.paste(words) : person.keyboard('{Delete}'))
  field.blur()
}

export async function entered(label: string, keys: string, within: string, nth: number) {
  await person.click(labelled(label, within, nth))
  await person.keyboard(keys)
}

export const keys = (pressed: string) => person.keyboard(pressed)
export const ticked = (label: string, within: string, nth: number) => person.click(labelled(label, within, nth))

export async function choices(label: string, within: string, nth: number): Promise<string[]> {
  await person.click(labelled(label, within, nth))
  const offered = [...document.querySelectorAll('[role=listbox] [role=option]')].map((option) =>
    plain(option.textContent),
  )
  await person.keyboard('{Escape}')
  return offered
}

export async function chosen(label: string, option: string, within: string, nth: number) {
  await person.click(labelled(label, within, nth))
  const offered = [...document.querySelectorAll<HTMLElement>('[role=listbox] [role=option]')]
  await person.click(
    one(
      offered.filter((one) => plain(one.textContent) === option),
      `“${option}” among ${offered.map((o) => plain(o.textContent)).join(' | ')}`,
    ),
  )
}

export async function given(label: string, name: string, content: string) {
  await person.upload(labelled(label, 'body', 0), new File([content], name))
}

/** A file that is no text, as base64. */
export async function givenBytes(label: string, name: string, type: string, content: string) {
  await person.upload(labelled(label, 'body', 0), new File([Buffer.from(content, 'base64')], name, { type }))
}

/** Notes, some with a photo each, written on the device one after the other. */
export async function recorded(job: number, design: number, notes: number, photos: number, photo: string) {
  const { write, addPhoto } = await import('../src/floor/outbox')
  for (let n = 0; n < notes; n++) {
    const taken = n < photos ? [await addPhoto(job, new Blob([Buffer.from(photo, 'base64')]))] : []
    await write(job, { id: `w${n}`, kind: 'note', design, note: `note ${n}`, photos: taken })
  }
}

export interface Field {
  label: string
  kind: 'typed' | 'choice' | 'box'
  value: string
  nth: number
}

/** Every field of a part that can be changed, in order; `nth` counts those of one label. */
export function fields(within: string): Field[] {
  const seen = new Map<string, number>()
  const known = labels()
  return all('input:not([type=file], [type=range]), [role=combobox]', within)
    .filter(
      (element) => labelOf(element, known) && !element.matches(':disabled, [aria-disabled=true], [aria-hidden=true]'),
    )
    .map((element) => {
      const label = labelOf(element, known)
      const nth = seen.get(label) ?? 0
      seen.set(label, nth + 1)
      const box = element as HTMLInputElement
      if (element.getAttribute('role') === 'combobox') return { label, kind: 'choice', value: named(element), nth }
      if (box.type === 'checkbox' || box.type === 'radio')
        return { label, kind: 'box', value: String(box.checked), nth }
      return { label, kind: 'typed', value: box.value, nth }
    })
}

/** The design as it is on the page. */
export const design = () => useWork.getState().design

export const files = () => keptFiles.length
export const path = () => window.location.pathname + window.location.search
export const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms))

const ROW = 'aside button[aria-expanded]'

/** Things of the panel's lists, by name. */
export const rows = () => all(ROW, 'body').map(named)

/** Unfolds one of them. */
export async function unfolded(place: number) {
  const row = one(all(ROW, 'body'), 'row', place)
  if (row.getAttribute('aria-expanded') === 'false') await person.click(row)
}

/** An attribute of everything that fits a selector. */
export const attributes = (selector: string, name: string) =>
  [...document.querySelectorAll(selector)].map((element) => element.getAttribute(name))

/** Keys pressed on something that has been gone to. */
export async function keyed(selector: string, nth: number, pressed: string) {
  const element = one([...document.querySelectorAll<HTMLElement>(selector)], selector, nth)
  element.focus()
  await person.keyboard(pressed)
}
