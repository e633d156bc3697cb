// A photo as it is kept: small enough for a link of one bar, upright, with no place or camera in it.

export const SIDE_PX = 1600
const QUALITY = 0.82
const THUMB_PX = 160

export interface Shrunk {
  jpeg: ArrayBuffer
  /** A picture of the picture. */
  thumb: string
}

/** How large it is drawn so that its longer side is no longer than this, and never larger than it is. */
export function fitted(width: number, height: number, side: number): [number, number] {
  const by = Math.min(1, side / Math.max(width, height))
  return [Math.max(1, Math.round(width * by)), Math.max(1, Math.round(height * by))]
}

function drawn(picture: ImageBitmap, side: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas')
  ;[canvas.width, canvas.height] = fitted(picture.width, picture.height, side)
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  return canvas
}

/** Throws, in words, for what this browser cannot read as a picture. */
export async function shrink(file: Blob): Promise<Shrunk> {
  let picture: ImageBitmap
  try {
    picture = await createImageBitmap(file)
  } catch {
    throw new Error('Photo: this browser cannot read it as a picture. Take it anew, as a JPEG.')
  }
  try {
    const blob = await new Promise<Blob | null>((done) => drawn(picture, SIDE_PX).toBlob(done, 'image/jpeg', QUALITY))
    if (!blob) throw new Error('Photo: there is not enough memory for it. Take a smaller one.')
    return { jpeg: await blob.arrayBuffer(), thumb: drawn(picture, THUMB_PX).toDataURL('image/jpeg', 0.6) }
  } finally {
    picture.close()
  }
}
