/** What of the package is used: documents of the DMN standard read from XML and written as such. */
declare module 'dmn-moddle' {
  /** An element: its type, and its attributes and children by their names. */
  export type Element = { readonly $type: string } & Readonly<Record<string, unknown>>;
  export class DmnModdle {
    create(type: string, values: Readonly<Record<string, unknown>>): Element;
    fromXML(xml: string): Promise<{ rootElement: Element; warnings: readonly { message: string }[] }>;
    toXML(element: Element, options?: { format?: boolean }): Promise<{ xml: string }>;
  }
}
