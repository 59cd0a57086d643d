import type { CSSProperties } from 'react';
import type { Shown } from './columns';

/** Where a pinned column stays. */
export const heldAt = ({ held }: Shown): { style?: CSSProperties } =>
  held === undefined ? {} : { style: { left: held } };
