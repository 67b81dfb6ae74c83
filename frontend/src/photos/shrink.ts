const EDGE = 2000

/** A photo small enough to send over a weak signal, upright, without what the camera wrote beside it. What the browser cannot read goes as it is. */
export async function shrink(file: File): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file)
    const by = Math.min(1, EDGE / Math.max(picture.width, picture.height))
    const canvas = document.createElement('canvas')
    canvas.width = Math.max(1, Math.round(picture.width * by))
    canvas.height = Math.max(1, Math.round(picture.height * by))
    canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
    picture.close()
    const made = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.85))
    return made ?? file
  } catch {
    return file
  }
}
