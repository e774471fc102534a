/** What the page has of a browser and Node hasn't: as much as the modules under test touch. */
const kept = new Map<string, string>()

globalThis.localStorage = {
  get length() {
    return kept.size
  },
  clear: () => kept.clear(),
  getItem: (key) => kept.get(key) ?? null,
  key: (place) => [...kept.keys()][place] ?? null,
  removeItem: (key) => void kept.delete(key),
  setItem: (key, value) => void kept.set(key, value),
}
