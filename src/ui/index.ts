/** The application's own components. */
export { Button, LinkButton } from './Button';
export { Combobox, type ComboOption } from './Combobox';
export { DataTable, type Column } from './DataTable';
export { Dialog, DialogFoot } from './Dialog';
export { Field } from './Field';
export { KeyList } from './KeyList';
export { ListPage } from './ListPage';
export { Select } from './Select';
export { Tabs } from './Tabs';
export { say, Toaster } from './Toaster';
export type { FindField } from './ListPage';
export { classes } from './classes';
export { Said } from './Said';
export { useAlive } from './useAlive';
export { useLatest } from './useLatest';
export { useMedia } from './useMedia';
