/** A drawing of the page as a picture that stands on its own. */

const STYLES = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linejoin',
  'stroke-linecap',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'font-feature-settings',
]

/** The drawing as SVG, with the colours and letters it has here. */
export function svgOf(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement
  const own = [drawing, ...drawing.querySelectorAll('*')]
  const copied = [copy, ...copy.querySelectorAll('*')]
  own.forEach((element, k) => {
    const style = window.getComputedStyle(element)
    const target = copied[k]
    if (!(target instanceof SVGElement)) return
    target.removeAttribute('class')
    for (const name of STYLES) {
      const value = style.getPropertyValue(name)
      if (value && value !== 'none') target.style.setProperty(name, value)
      else if (value === 'none' && (name === 'fill' || name === 'stroke'))
        target.style.setProperty(name, value)
    }
  })
  const { width, height } = drawing.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(Math.round(width)))
  copy.setAttribute('height', String(Math.round(height)))
  const ground = window.document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  ground.setAttribute('width', '100%')
  ground.setAttribute('height', '100%')
  ground.setAttribute(
    'fill',
    window.getComputedStyle(window.document.documentElement).getPropertyValue('--enamel') || '#fff',
  )
  copy.insertBefore(ground, copy.firstChild)
  return `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(copy)}\n`
}

/** The drawing as PNG, twice as fine as on the page. */
export async function pngOf(drawing: SVGSVGElement): Promise<Blob> {
  const { width, height } = drawing.getBoundingClientRect()
  const image = new Image()
  // A blob's address would need leave of the page's policy; the drawing itself as an address does not.
  const url = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgOf(drawing))}`
  await new Promise<void>((done, failed) => {
    image.onload = () => done()
    image.onerror = () => failed(new Error('The picture could not be drawn.'))
    image.src = url
  })
  const canvas = window.document.createElement('canvas')
  canvas.width = Math.round(2 * width)
  canvas.height = Math.round(2 * height)
  canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
  return await new Promise<Blob>((done, failed) =>
    canvas.toBlob(
      (blob) => (blob ? done(blob) : failed(new Error('The picture could not be drawn.'))),
      'image/png',
    ),
  )
}
