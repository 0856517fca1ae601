/** A cut or video cannot be made small enough for its network. */
export class TooHeavyError extends Error {
  override readonly name = 'TooHeavyError';
  readonly code = 'too-heavy';
  constructor(readonly maxBytes: number) {
    super(`No quality of this cut stays below ${maxBytes} bytes`);
  }
}
