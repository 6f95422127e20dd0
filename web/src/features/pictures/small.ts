/** A photograph made small before it goes out: a telephone's is more than a kitchen's line has. */
const LONGEST_SIDE = 1600;
const QUALITY = 0.85;

/** The sides of a picture that fits, in pixels; a small one stays as it is. */
export function fitted(width: number, height: number): { width: number; height: number } {
  const scale = Math.min(1, LONGEST_SIDE / Math.max(width, height));
  return {
    width: Math.max(1, Math.round(width * scale)),
    height: Math.max(1, Math.round(height * scale)),
  };
}

/** As a small JPEG; what cannot be opened here goes as it is, and the server says why. */
export async function small(file: Blob): Promise<Blob> {
  try {
    const image = await createImageBitmap(file, { imageOrientation: "from-image" });
    const size = fitted(image.width, image.height);
    const canvas = Object.assign(document.createElement("canvas"), size);
    const pen = canvas.getContext("2d");
    if (!pen) return file;
    pen.fillStyle = "white";
    pen.fillRect(0, 0, size.width, size.height);
    pen.drawImage(image, 0, 0, size.width, size.height);
    image.close();
    return await new Promise((done) =>
      canvas.toBlob((b) => done(b ?? file), "image/jpeg", QUALITY),
    );
  } catch {
    return file;
  }
}
