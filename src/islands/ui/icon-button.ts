/** A bare icon that is a button: never smaller than a pointer can hit (24 px, WCAG 2.2, 2.5.8). */
export const iconButtonClasses = 'inline-flex size-6 shrink-0 items-center justify-center rounded-md text-quiet hover:bg-sunk hover:text-ink';
