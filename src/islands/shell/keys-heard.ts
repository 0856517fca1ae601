/** The bar tells the window by this event that it hears the keys of the shortcuts from now on. */
export const KEYS_HEARD = 'confetti:keys-heard';
