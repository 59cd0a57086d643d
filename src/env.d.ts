/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** The person signed in; null on the sign-in page. */
    actor: import('./services/actor').Actor | null;
    theme: 'light' | 'dark' | 'auto';
  }
}
