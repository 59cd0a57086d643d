/** A field for rich text; apart from the other components, since its editor weighs. */
export { RichTextField, type RichWords } from './RichText';
export { fromEditor, toEditor, type RichPart } from './rich';
