import { useState } from 'react';
import type { PaperHouseView } from '../../../contract';
import { usualBlocks, usualColour, usualLines, type TemplateContent } from '../../../core/paper';
import { Button, Dialog, DialogFoot, Field, Select } from '../../../ui';
import { ask } from '../../api';
import { useSpeech } from '../../speech';
import type { KeepPaper, OpenPaper } from './types';

interface Props {
  of: OpenPaper['of'];
  view: PaperHouseView;
  onClose: () => void;
  onKeep: KeepPaper;
  onMade: (code: string) => void;
}

/** A code made of a name; one that is taken gets a number. */
export function codeFor(name: string, taken: readonly string[]): string {
  const plain = name
    .normalize('NFD')
    .replace(/[^a-zA-Z0-9]+/g, '-')
    .replace(/^[^a-zA-Z]+|-+$/g, '')
    .slice(0, 32);
  const base = plain === '' ? 'text' : plain;
  let code = base;
  for (let next = 2; taken.includes(code); next++) code = `${base}-${String(next)}`;
  return code;
}

const plainTemplate: Omit<TemplateContent, 'name'> = {
  market: null,
  class: null,
  dealers: 'none',
  language: null,
  paper: null,
  colour: usualColour,
  mark: null,
  blocks: usualBlocks,
  lines: usualLines,
  drawings: { views: [], space: false },
};

/** A new text or template, by its name; a template as a copy of another. */
export function NewPaper({ of, view, onClose, onKeep, onMade }: Props) {
  const { t, language } = useSpeech();
  const [name, setName] = useState('');
  const [place, setPlace] = useState<'document' | 'line'>('document');
  const [from, setFrom] = useState(view.templates[0]?.code ?? '');
  const spoken = language === 'de' ? 'de' : 'en';
  const make = async (): Promise<void> => {
    const taken = of === 'texts' ? view.texts : view.templates;
    const code = codeFor(
      name,
      taken.map((each) => each.code),
    );
    const names = { [spoken]: name.trim() };
    const copied = view.templates.find((each) => each.code === from)?.content;
    const kept = await onKeep(
      of === 'texts'
        ? ask('PUT /paper/texts/{code}', {
            at: { code },
            input: { version: 0, content: { name: names, place, words: { en: [], de: [] } } },
          })
        : ask('PUT /paper/templates/{code}', {
            at: { code },
            input: { version: 0, content: { ...plainTemplate, ...copied, mark: null, name: names } },
          }),
    );
    if (kept) onMade(code);
  };
  return (
    <Dialog title={t(`paperHouse.add.${of}`)} closeText={t('frame.close')} open onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim() !== '') void make();
        }}
      >
        <Field
          label={t('paperHouse.name')}
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.target.value)}
        />
        {of === 'texts' ? (
          <Select
            label={t('paperHouse.place')}
            value={place}
            options={(['document', 'line', 'mail'] as const).map((value) => ({
              value,
              text: t(`paperHouse.places.${value}`),
            }))}
            onChange={(event) => setPlace(event.target.value === 'line' ? 'line' : 'document')}
          />
        ) : (
          <Select
            label={t('paperHouse.copyOf')}
            value={from}
            options={[
              { value: '', text: t('composer.nothing') },
              ...view.templates.map(({ code, content }) => ({
                value: code,
                text: content.name[spoken] ?? code,
              })),
            ]}
            onChange={(event) => setFrom(event.target.value)}
          />
        )}
        <DialogFoot>
          <Button onClick={onClose}>{t('paperHouse.cancel')}</Button>
          <Button look="main" type="submit" disabled={name.trim() === ''}>
            {t('paperHouse.make')}
          </Button>
        </DialogFoot>
      </form>
    </Dialog>
  );
}
