import { useEffect, useId, useState, type ReactNode } from 'react';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import { StarterKit } from '@tiptap/starter-kit';
import { Bold, Italic, Link2, Link2Off, List, ListOrdered } from 'lucide-react';
import { useEcho } from '../useEcho';
import { useLatest } from '../useLatest';
import shared from '../ui.module.css';
import { fromEditor, toEditor, type RichPart } from './rich';
import css from './rich-text.module.css';

/** What the field says in the words of its reader. */
export interface RichWords {
  bold: string;
  italic: string;
  list: string;
  ordered: string;
  link: string;
  unlink: string;
  /** Asked for: where a link leads. */
  address: string;
}

interface Props {
  label: string;
  hideLabel?: boolean;
  value: readonly RichPart[];
  readOnly?: boolean;
  words: RichWords;
  /** What is wrong with it. */
  problem?: string | undefined;
  /** Stands in the bar beside the marks, and may write at the place of the cursor. */
  more?: (insert: (text: string) => void) => ReactNode;
  onChange: (value: RichPart[]) => void;
}

const alike = (one: readonly RichPart[], other: readonly RichPart[]): boolean =>
  JSON.stringify(one) === JSON.stringify(other);

/** What it knows and nothing else: what is pasted loses all that has no place here. */
const kit = StarterKit.configure({
  blockquote: false,
  code: false,
  codeBlock: false,
  hardBreak: false,
  heading: false,
  horizontalRule: false,
  strike: false,
  underline: false,
  dropcursor: false,
  trailingNode: false,
  link: { openOnClick: false, autolink: false, protocols: ['https', 'mailto'], defaultProtocol: 'https' },
});

/** A text of paragraphs and lists, with bold, italic and links. */
export function RichTextField(props: Props) {
  const { label, hideLabel = false, value, readOnly = false, words, problem, more, onChange } = props;
  const latest = useLatest(onChange);
  const echo = useEcho(alike);
  const id = useId();
  const editor = useEditor({
    extensions: [kit],
    content: toEditor(value),
    editable: !readOnly,
    immediatelyRender: false,
    // Its style sheet stands with ours; a page takes none that is written into it.
    injectCSS: false,
    editorProps: {
      attributes: {
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-labelledby': `${id}-label`,
        'data-rich-text': label,
      },
    },
    onUpdate: ({ editor: changed }) => {
      const parts = fromEditor(changed.getJSON());
      echo.said(parts);
      latest.current(parts);
    },
  });
  useEffect(() => {
    if (!editor || echo.hears(value) || alike(fromEditor(editor.getJSON()), value)) return;
    editor.commands.setContent(toEditor(value), { emitUpdate: false });
  }, [editor, value, echo]);
  useEffect(() => {
    editor?.setEditable(!readOnly, false);
  }, [editor, readOnly]);
  return (
    <div className={css.field}>
      <span id={`${id}-label`} className={hideLabel ? shared.hidden : shared.label}>
        {label}
      </span>
      <div className={css.frame} data-invalid={problem !== undefined || undefined}>
        {!readOnly && editor && (
          <Marks editor={editor} words={words}>
            {more?.((text) => editor.chain().focus().insertContent({ type: 'text', text }).run())}
          </Marks>
        )}
        <EditorContent editor={editor} className={css.text} />
      </div>
      {problem !== undefined && (
        <p className={shared.error} role="alert">
          {problem}
        </p>
      )}
    </div>
  );
}

/** What may be done to the words that are marked. */
function Marks({ editor, words, children }: { editor: Editor; words: RichWords; children: ReactNode }) {
  const on = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      list: now.isActive('bulletList'),
      ordered: now.isActive('orderedList'),
      link: now.isActive('link'),
    }),
  });
  const [asks, setAsks] = useState(false);
  const chain = () => editor.chain().focus();
  const size = 14;
  return (
    <div className={css.marks} role="toolbar" aria-label={words.bold}>
      <Mark name={words.bold} on={on.bold} act={() => chain().toggleBold().run()}>
        <Bold size={size} aria-hidden />
      </Mark>
      <Mark name={words.italic} on={on.italic} act={() => chain().toggleItalic().run()}>
        <Italic size={size} aria-hidden />
      </Mark>
      <Mark name={words.list} on={on.list} act={() => chain().toggleBulletList().run()}>
        <List size={size} aria-hidden />
      </Mark>
      <Mark name={words.ordered} on={on.ordered} act={() => chain().toggleOrderedList().run()}>
        <ListOrdered size={size} aria-hidden />
      </Mark>
      {on.link ? (
        <Mark name={words.unlink} on={false} act={() => chain().extendMarkRange('link').unsetLink().run()}>
          <Link2Off size={size} aria-hidden />
        </Mark>
      ) : (
        <Mark name={words.link} on={asks} act={() => setAsks(!asks)}>
          <Link2 size={size} aria-hidden />
        </Mark>
      )}
      {children}
      {asks && (
        <AddressField
          label={words.address}
          onDone={(href) => {
            setAsks(false);
            if (href !== '') chain().extendMarkRange('link').setLink({ href }).run();
          }}
        />
      )}
    </div>
  );
}

function Mark(props: { name: string; on: boolean; act: () => void; children: ReactNode }) {
  const { name, on, act, children } = props;
  return (
    <button type="button" className={css.mark} aria-label={name} title={name} aria-pressed={on} onClick={act}>
      {children}
    </button>
  );
}

/** Where the marked words lead; nothing where it is no address. */
function AddressField({ label, onDone }: { label: string; onDone: (address: string) => void }) {
  const [text, setText] = useState('');
  const address = text.includes('@') && !text.includes(':') ? `mailto:${text}` : text;
  return (
    <input
      className={shared.input}
      aria-label={label}
      placeholder={label}
      autoFocus
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Escape') onDone('');
        if (event.key !== 'Enter') return;
        event.preventDefault();
        onDone(/^(?:https:\/\/|mailto:)\S+$/.test(address) ? address : '');
      }}
    />
  );
}
