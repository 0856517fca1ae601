/** One filled outline of an artwork; `evenOdd` where overlaps are holes. */
export interface ArtworkPath {
  readonly d: string;
  readonly fill: string;
  readonly evenOdd?: boolean | undefined;
}

/** Flat vector artwork: filled outlines in a view box that starts at 0, 0, the lowest first. */
export interface Artwork {
  readonly viewBox: { readonly width: number; readonly height: number };
  readonly paths: readonly ArtworkPath[];
}
