/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** Who is signed in; null on pages that are open to anyone. */
    readonly caller: import('./server/auth/caller.ts').Caller | null;
    readonly theme: 'light' | 'dark' | 'system';
  }
}
