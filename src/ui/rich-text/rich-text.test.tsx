// @vitest-environment jsdom
import { cleanup, render, screen, waitFor } from '@testing-library/react';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { fromEditor, RichTextField, toEditor, type RichPart, type RichWords } from '.';

afterEach(cleanup);
const words: RichWords = {
  bold: 'Bold',
  italic: 'Italic',
  list: 'List',
  ordered: 'Numbered',
  link: 'Link',
  unlink: 'No link',
  address: 'Address',
};

const anySpan = fc.record(
  {
    text: fc.string({ minLength: 1, maxLength: 8 }),
    bold: fc.constant(true as const),
    italic: fc.constant(true as const),
    link: fc.constant('https://harrowmoor.example'),
  },
  { requiredKeys: ['text'] },
);
const anySpans = fc.array(anySpan, { minLength: 1, maxLength: 4 });
const anyPart: fc.Arbitrary<RichPart> = fc.oneof(
  anySpans.map((spans): RichPart => ({ is: 'paragraph', spans })),
  fc
    .record({ ordered: fc.boolean(), items: fc.array(anySpans, { minLength: 1, maxLength: 3 }) })
    .map((list): RichPart => ({ is: 'list', ...list })),
);

describe('rich text in its editor', () => {
  it('is the same when it comes out as when it went in', () => {
    fc.assert(
      fc.property(fc.array(anyPart, { maxLength: 6 }), (parts) => {
        expect(fromEditor(toEditor(parts))).toEqual(parts);
      }),
    );
  });

  it('shows what it is given, and what somebody else makes of it', async () => {
    const field = (value: RichPart[]) => (
      <RichTextField label="Closing" value={value} words={words} onChange={() => undefined} />
    );
    const { rerender } = render(field([{ is: 'paragraph', spans: [{ text: 'Kind regards', bold: true }] }]));
    const box = await screen.findByRole('textbox', { name: 'Closing' });
    expect(box.innerHTML).toContain('<strong>Kind regards</strong>');
    rerender(field([{ is: 'list', ordered: false, items: [[{ text: 'one' }], [{ text: 'two' }]] }]));
    await waitFor(() => expect(box.querySelectorAll('li')).toHaveLength(2));
    expect(screen.getByRole('button', { name: 'Bold' }).getAttribute('aria-pressed')).toBe('false');
  });

  it('keeps of what is pasted paragraphs, lists, bold, italic and links, and nothing else', async () => {
    let kept: RichPart[] = [];
    render(<RichTextField label="Closing" value={[]} words={words} onChange={(value) => (kept = value)} />);
    const box = await screen.findByRole('textbox', { name: 'Closing' });
    const html =
      '<h1 style="color:red">Head</h1><p onclick="x()">a <b>b</b> <i>c</i> <a href="https://harrowmoor.example">d</a>' +
      '<a href="javascript:alert(1)">e</a></p><script>alert(1)</script><img src=x onerror=alert(1)>' +
      '<table><tr><td>cell</td></tr></table><ul><li>one</li></ul>';
    const paste = new Event('paste', { bubbles: true, cancelable: true });
    Object.assign(paste, {
      clipboardData: {
        getData: (type: string) => (type === 'text/html' ? html : ''),
        types: ['text/html'],
        files: [],
      },
    });
    box.dispatchEvent(paste);
    await waitFor(() => expect(JSON.stringify(kept)).toContain('cell'));
    const text = JSON.stringify(kept);
    expect(text).not.toMatch(/javascript|alert|onclick|style|<|img/);
    expect(kept).toContainEqual({ is: 'list', ordered: false, items: [[{ text: 'one' }]] });
    expect(text).toContain('"bold":true');
    expect(text).toContain('"link":"https://harrowmoor.example"');
  });

  it('is only read where it may not be changed', async () => {
    render(
      <RichTextField
        label="Closing"
        readOnly
        value={[{ is: 'paragraph', spans: [{ text: 'x' }] }]}
        words={words}
        onChange={() => undefined}
      />,
    );
    const box = await screen.findByRole('textbox', { name: 'Closing' });
    expect(box.getAttribute('contenteditable')).toBe('false');
    expect(screen.queryByRole('toolbar')).toBeNull();
  });
});
