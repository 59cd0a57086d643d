import { useSyncExternalStore } from 'react';

const never = () => () => undefined;

/**
 * Whether the page's script runs by now; before that, forms are sent as they are, and other fields do not
 * take the keyboard.
 */
export const useAlive = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
