/** Pixels of a picture, as a canvas gives them: red, green, blue and opacity, row by row. */
export type Pixels = Pick<ImageData, 'data' | 'width' | 'height'>

/**
 * What a code in a picture says: the QR or Data Matrix of a box label, or a bar code as stickers bear them; null where none is seen.
 * The reader is fetched when it is needed first.
 */
export async function decodeCode({ data, width, height }: Pixels): Promise<string | null> {
  const zxing = await import('@zxing/library')
  const { BarcodeFormat, DecodeHintType } = zxing
  const grey = new Uint8ClampedArray(width * height)
  // Luminance by ITU-R BT.601.
  for (let at = 0; at < grey.length; at++)
    grey[at] = 0.299 * (data[4 * at] ?? 0) + 0.587 * (data[4 * at + 1] ?? 0) + 0.114 * (data[4 * at + 2] ?? 0)
  const hints = new Map<number, unknown>([
    [DecodeHintType.TRY_HARDER, true],
    [
      DecodeHintType.POSSIBLE_FORMATS,
      [
        ...[BarcodeFormat.QR_CODE, BarcodeFormat.DATA_MATRIX, BarcodeFormat.CODE_128],
        ...[BarcodeFormat.CODE_39, BarcodeFormat.ITF, BarcodeFormat.EAN_13],
      ],
    ],
  ])
  const source = new zxing.RGBLuminanceSource(grey, width, height)
  const bitmap = new zxing.BinaryBitmap(new zxing.HybridBinarizer(source))
  try {
    return new zxing.MultiFormatReader().decode(bitmap, hints as never).getText()
  } catch (error) {
    // Nothing, or nothing that can be read, is no fault: the next picture may show it.
    if (
      error instanceof zxing.NotFoundException ||
      error instanceof zxing.ChecksumException ||
      error instanceof zxing.FormatException
    )
      return null
    throw error
  }
}
