/** Reads the QR code in what a camera shows; null while there is none in it. */
export type QrReader = (video: HTMLVideoElement) => Promise<string | null>;

/** The detector that some browsers have. */
interface Detector {
  detect(source: HTMLVideoElement): Promise<readonly { readonly rawValue: string }[]>;
}
type DetectorClass = (new (options: { formats: readonly string[] }) => Detector) & {
  getSupportedFormats(): Promise<readonly string[]>;
};

const QR_CODE = 'qr_code';
/** A frame is read at this width at most: a label fills enough of it, and a phone reads it in a tenth of a second. */
const READ_WIDTH = 640;

/** Returns the browser's own reader, or one that is loaded now. */
export async function qrReader(): Promise<QrReader> {
  const own = (globalThis as { BarcodeDetector?: DetectorClass }).BarcodeDetector;
  // A browser may have the class and no format of it.
  if (own && (await own.getSupportedFormats()).includes(QR_CODE)) {
    const detector = new own({ formats: [QR_CODE] });
    return async (video) => (await detector.detect(video))[0]?.rawValue ?? null;
  }
  return packagedReader();
}

async function packagedReader(): Promise<QrReader> {
  const { BinaryBitmap, HybridBinarizer, QRCodeReader, RGBLuminanceSource } = await import('@zxing/library');
  const reader = new QRCodeReader();
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  return (video) => {
    const scale = Math.min(1, READ_WIDTH / video.videoWidth);
    canvas.width = Math.round(video.videoWidth * scale);
    canvas.height = Math.round(video.videoHeight * scale);
    context.drawImage(video, 0, 0, canvas.width, canvas.height);
    try {
      const { width, height } = canvas;
      const light = lightOf(context.getImageData(0, 0, width, height).data);
      const frame = new BinaryBitmap(new HybridBinarizer(new RGBLuminanceSource(light, width, height)));
      return Promise.resolve(reader.decode(frame).getText());
    } catch {
      // The package throws for each frame without a whole code in it.
      return Promise.resolve(null);
    }
  };
}

/** How light each pixel is, 0 to 255. */
function lightOf(pixels: Uint8ClampedArray): Uint8ClampedArray {
  const light = new Uint8ClampedArray(pixels.length / 4);
  for (let i = 0; i < light.length; i++)
    light[i] = (pixels[4 * i]! + 2 * pixels[4 * i + 1]! + pixels[4 * i + 2]!) / 4;
  return light;
}
