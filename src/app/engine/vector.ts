/** Longest side that a drawing is made at. */
const longest = 8192;

/**
 * Draws an SVG file at a height, keeping its proportions; throws an Error that says what is wrong. Loaded as an image, a
 * drawing can neither run code nor fetch anything.
 */
export async function drawVector(file: Blob, height: number): Promise<ImageBitmap> {
  const url = URL.createObjectURL(new Blob([file], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode().catch(() => {
      throw new Error('This SVG is damaged and cannot be drawn. Export it again.');
    });
    const own =
      image.naturalWidth > 0 && image.naturalHeight > 0 ? image.naturalWidth / image.naturalHeight : 1;
    const scale = Math.min(1, longest / (height * Math.max(1, own)));
    const canvas = document.createElement('canvas');
    canvas.height = Math.max(1, Math.round(height * scale));
    canvas.width = Math.max(1, Math.round(height * scale * own));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await createImageBitmap(canvas, { imageOrientation: 'flipY', premultiplyAlpha: 'premultiply' });
  } finally {
    URL.revokeObjectURL(url);
  }
}
