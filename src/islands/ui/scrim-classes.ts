/** What darkens the page behind a dialog. Its one row is as high as the window: a dialog that has more to show scrolls instead of growing out of it. */
export const scrimClasses = 'fixed inset-0 z-40 grid grid-rows-[minmax(0,100%)] place-items-center bg-scrim p-4';
