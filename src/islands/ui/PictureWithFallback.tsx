import { useState } from 'react';

/** A picture that takes a moment to be made: a quiet field until it is there, a word if it cannot be, or (null) is not kept. */
export function PictureWithFallback({ src, alt, className = '' }: { readonly src: string | null; readonly alt: string; readonly className?: string }) {
  const [failed, setFailed] = useState(false);
  if (failed || src === null) return <span className={`grid place-items-center bg-sunk text-xs text-quiet ${className}`}>No picture</span>;
  // A browser would drag the picture instead of the tile around it, and nothing before it has loaded.
  return <img src={src} alt={alt} draggable={false} loading="lazy" onError={() => setFailed(true)} className={`bg-sunk ${className}`} />;
}
