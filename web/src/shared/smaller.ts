/** The longest side of a photograph as it is sent, in points: what the program keeps. */
const longest = 1600
const quality = 0.85

/**
 * A photograph made smaller before it is sent, upright, so that a bay's wireless carries it. What this browser cannot read goes as it
 * is: the program says what is wrong with it.
 */
export async function smaller(file: Blob): Promise<Blob> {
  try {
    const picture = await createImageBitmap(file, { imageOrientation: 'from-image' })
    const by = Math.min(1, longest / Math.max(picture.width, picture.height))
    if (by === 1 && file.size < 1 << 20) return file
    const [width, height] = [Math.round(picture.width * by), Math.round(picture.height * by)]
    const canvas = new OffscreenCanvas(width, height)
    const pen = canvas.getContext('2d')!
    pen.imageSmoothingQuality = 'high'
    pen.drawImage(picture, 0, 0, width, height)
    picture.close()
    return await canvas.convertToBlob({ type: 'image/jpeg', quality })
  } catch {
    return file
  }
}
