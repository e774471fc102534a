/** Everything drawn in an element as one PNG, twice as large as on the screen, on the sheet's colour. */
export async function pictureOf(element: HTMLElement, paper: string): Promise<Blob> {
  const frame = element.getBoundingClientRect()
  const canvas = document.createElement('canvas')
  canvas.width = Math.ceil(frame.width * 2)
  canvas.height = Math.ceil(frame.height * 2)
  const pen = canvas.getContext('2d')
  if (!pen) throw new Error('This browser can’t make pictures.')
  pen.scale(2, 2)
  pen.fillStyle = paper
  pen.fillRect(0, 0, frame.width, frame.height)
  for (const caption of element.querySelectorAll('figcaption')) {
    const box = caption.getBoundingClientRect()
    const style = getComputedStyle(caption)
    pen.fillStyle = style.color
    pen.font = `${style.fontSize} sans-serif`
    pen.fillText(caption.textContent ?? '', box.left - frame.left, box.bottom - frame.top - 4)
  }
  for (const svg of element.querySelectorAll('svg')) {
    const box = svg.getBoundingClientRect()
    if (box.width > 1)
      pen.drawImage(await imageOf(svg, box), box.left - frame.left, box.top - frame.top, box.width, box.height)
  }
  return new Promise((resolve, reject) =>
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('The picture could not be made.'))), 'image/png'),
  )
}

/** An SVG of the page as an image of its own. */
async function imageOf(svg: SVGSVGElement, box: DOMRect): Promise<HTMLImageElement> {
  const copy = svg.cloneNode(true) as SVGSVGElement
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', `${box.width}`)
  copy.setAttribute('height', `${box.height}`)
  copy.setAttribute('font-family', 'sans-serif')
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(new XMLSerializer().serializeToString(copy))}`
  await image.decode()
  return image
}

/** Hand a file to the person. */
export function handOver(blob: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
