// @vitest-environment jsdom
/** What is typed before the page's script runs is not lost. */
import { act } from '@testing-library/react';
import { useState } from 'react';
import { hydrateRoot } from 'react-dom/client';
import { renderToString } from 'react-dom/server';
import { afterEach, describe, expect, it } from 'vitest';
import { Field } from './Field';

function Finding() {
  const [text, setText] = useState('');
  return (
    <>
      <Field label="Find" value={text} onChange={(event) => setText(event.target.value)} />
      <p>{text}</p>
    </>
  );
}

afterEach(() => document.body.replaceChildren());

/** The page as the server sends it, typed into, and alive then. */
async function alive(typed: string): Promise<HTMLElement> {
  const page = document.createElement('main');
  page.innerHTML = renderToString(<Finding />);
  document.body.append(page);
  const field = page.querySelector('input');
  if (field) field.value = typed;
  await act(async () => {
    hydrateRoot(page, <Finding />);
    await Promise.resolve();
  });
  return page;
}

describe('a field that is found typed into', () => {
  it('tells it, and keeps it', async () => {
    const page = await alive('Ridge');
    expect(page.querySelector('p')?.textContent).toBe('Ridge');
    expect(page.querySelector('input')?.value).toBe('Ridge');
  });

  it('tells nothing where nothing was typed', async () => {
    const page = await alive('');
    expect(page.querySelector('p')?.textContent).toBe('');
  });
});
