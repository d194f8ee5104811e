/** The longest side of a picture that is kept, pixels. */
const LONGEST = 1280
/** How well it is drawn, from 0 to 1. */
const QUALITY = 0.8

/**
 * A picture as it is kept: drawn anew on this device, so that it is small and says nothing of where and with what it was taken.
 * It stands as the camera meant it to.
 */
export async function scaled(file: Blob): Promise<Blob> {
  let drawn: ImageBitmap
  try {
    drawn = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    throw new Error('This is no picture that can be read here: choose a photograph, as JPEG or PNG.')
  }
  const by = Math.min(1, LONGEST / Math.max(drawn.width, drawn.height))
  const canvas = window.document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(by * drawn.width))
  canvas.height = Math.max(1, Math.round(by * drawn.height))
  const paper = canvas.getContext('2d')
  if (!paper) throw new Error('This browser cannot draw the picture anew: take it on another device.')
  // What is see-through is white on a photograph.
  paper.fillStyle = 'white'
  paper.fillRect(0, 0, canvas.width, canvas.height)
  paper.drawImage(drawn, 0, 0, canvas.width, canvas.height)
  drawn.close()
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', QUALITY))
  if (!blob) throw new Error('This browser cannot draw the picture anew: take it on another device.')
  return blob
}
