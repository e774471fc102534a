import type { Design, Patch } from '../api/model'

const isObject = (value: unknown): value is Patch =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** A JSON merge patch (RFC 7396), applied. */
export function merged<T>(document: T, patch: Patch): T {
  const result: Patch = isObject(document) ? { ...document } : {}
  for (const [key, value] of Object.entries(patch)) {
    if (value === null) Reflect.deleteProperty(result, key)
    else result[key] = isObject(value) ? merged(result[key] ?? {}, value) : value
  }
  return result as T
}

export const patched = (design: Design, patch: Patch): Design => merged(design, patch)

export const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
