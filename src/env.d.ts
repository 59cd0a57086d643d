/// <reference types="astro/client" />

declare namespace App {
  interface Locals {
    /** The person signed in; null on the sign-in page. */
    actor: import('./services/access/actor').Actor | null;
    theme: 'light' | 'dark' | 'auto';
    /** Who is at the other end; said by the server in front. */
    client: import('./server/client').Client;
    /** What a page behind a share is to show, where it was read before the page is drawn. */
    shared?: import('./services/kernel/failure').Result<import('./contract').SharedView>;
  }
}

declare module 'astro/runtime/server/astro-island-styles.js' {
  export const ISLAND_STYLES: string;
}
