/// <reference types="astro/client" />

declare namespace App {
  /** What the middleware has worked out before a page runs. */
  interface Locals {
    /** The signed-in person and their brands; null on pages that are open to anyone. */
    readonly me: import('./server/page-context.ts').Me | null;
    /** The brand of the address, one of the person's own; null on pages that belong to no brand. */
    readonly brand: import('./server/page-context.ts').MyBrand | null;
    readonly theme: 'light' | 'dark' | 'system';
  }
}

/** The package brings no types of its own; these are of what is used. */
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number);
    createComplexArray(): number[];
    realTransform(output: number[], input: readonly number[]): void;
  }
}
