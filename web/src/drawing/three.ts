import * as THREE from 'three'

type Renderer = 'none' | 'software' | 'graphics card'
let renderer: Renderer | null = null

/** What draws in three dimensions here. `?flat` in the address that the page is opened by says nothing does. */
export function drawnBy(): Renderer {
  renderer ??= (() => {
    if (typeof window === 'undefined' || new URLSearchParams(window.location.search).has('flat')) return 'none'
    try {
      const context = document.createElement('canvas').getContext('webgl2')
      if (!context) return 'none'
      const info = context.getExtension('WEBGL_debug_renderer_info')
      const name = String(info ? context.getParameter(info.UNMASKED_RENDERER_WEBGL) : '')
      context.getExtension('WEBGL_lose_context')?.loseContext()
      return /swiftshader|llvmpipe|software|basic render/i.test(name) ? 'software' : 'graphics card'
    } catch {
      return 'none'
    }
  })()
  return renderer
}

/** Millimetres to the scene's metres. */
export const M = 1 / 1000

/** Places in threes as a mesh. */
export function meshOf(places: number[]) {
  const geometry = new THREE.BufferGeometry()
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3))
  geometry.computeVertexNormals()
  return geometry
}

/** Coordinates and corners in threes as a mesh with flat faces. */
export const surfaceGeometry = (points: number[], triangles: number[]) =>
  meshOf(triangles.flatMap((corner) => [0, 1, 2].map((i) => (points[corner * 3 + i] ?? 0) * M)))
