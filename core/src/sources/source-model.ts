/** A source as the circuit sees it: volts behind ohms. */
export interface SourceModel {
  readonly openVolts: number;
  readonly ohms: number;
  /** Present when an alternator works beside it. */
  readonly alternator?: { readonly volts: number; readonly maxAmps: number };
  /** Above this the source cannot deliver or shuts itself off. */
  readonly maxAmps?: number;
  /** Its peak lasts no longer than this. */
  readonly maxSeconds?: number;
  /** Lead-acid inside: part of its resistance is polarisation, which builds up over about a second. */
  readonly polarises?: boolean;
  /** A capacitor bank: its volts fall with the charge it gives. `ohms` then stands for both, at the moment of judgement. */
  readonly capacitor?: {
    readonly farads: number;
    readonly esrOhms: number;
    /** The volts that its cells stand together; left out where nobody said. */
    readonly maxVolts?: number;
  };
}
