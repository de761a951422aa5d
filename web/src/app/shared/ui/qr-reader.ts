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
  const { BinaryBitmap, HTMLCanvasElementLuminanceSource, HybridBinarizer, QRCodeReader } =
    await import('@zxing/library');
  const reader = new QRCodeReader();
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  return (video) => {
    const scale = Math.min(1, READ_WIDTH / video.videoWidth);
    canvas.width = Math.round(video.videoWidth * scale);
    canvas.height = Math.round(video.videoHeight * scale);
    context.drawImage(video, 0, 0, canvas.width, canvas.height);
    try {
      const frame = new BinaryBitmap(new HybridBinarizer(new HTMLCanvasElementLuminanceSource(canvas)));
      return Promise.resolve(reader.decode(frame).getText());
    } catch {
      // The package throws for each frame without a whole code in it.
      return Promise.resolve(null);
    }
  };
}
