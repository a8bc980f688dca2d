import { uuid } from './refs'

/** The longest side a picture is sent with; more says nothing more of a fault. */
const LONGEST = 1600

/** A picture made small enough to be kept and sent over a poor network, under a name of its own. */
export async function shrunk(file: File): Promise<{ name: string; blob: Blob }> {
  let image: ImageBitmap
  try {
    image = await createImageBitmap(file, { imageOrientation: 'from-image' })
  } catch {
    throw new Error(`“${file.name}” is not a picture that can be read (JPEG, PNG or WebP).`)
  }
  const scale = Math.min(1, LONGEST / Math.max(image.width, image.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(image.width * scale))
  canvas.height = Math.max(1, Math.round(image.height * scale))
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height)
  image.close()
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.82))
  if (blob === null) throw new Error(`“${file.name}” could not be made smaller.`)

  return { name: `${uuid()}.jpg`, blob }
}
