import { useState } from 'react';
import { Plus } from 'lucide-react';
import type { DraftHead, ModelHead, ModelsView, VersionView } from '../../contract';
import { date, own } from '../../i18n';
import { Button, DataTable, ListPage, say, type Column } from '../../ui';
import { ask, sentences } from '../api';
import { Speech, useSpeech, type InWords } from '../speech';
import { NewModel } from './NewModel';
import css from './workshop.module.css';

interface Props {
  language: string;
  first: ModelsView;
  /** ISO. */
  today: string;
}

export default function Models(props: Props) {
  return (
    <Speech language={props.language}>
      <Page {...props} />
    </Speech>
  );
}

/** A model, or one that is not published yet and has only a draft. */
interface Line {
  id: string;
  name: string;
  sku: string;
  model: ModelHead | null;
  drafts: readonly DraftHead[];
}

function Page({ first, today }: Props) {
  const words = useSpeech();
  const { t, language } = words;
  const [adding, setAdding] = useState(false);
  const lines: Line[] = [
    ...first.models.map((model): Line => ({
      id: model.id,
      name: own(model.name, language) || model.id,
      sku: model.sku,
      model,
      drafts: model.drafts,
    })),
    ...first.drafts.map((draft): Line => ({
      id: draft.modelId,
      name: own(draft.title, language) || draft.modelId,
      sku: '',
      model: null,
      drafts: [draft],
    })),
  ];
  return (
    <ListPage
      title={t('draft.models')}
      act={
        <Button onClick={() => setAdding(true)}>
          <Plus size={14} aria-hidden />
          {t('draft.beginNew')}
        </Button>
      }
    >
      <DataTable
        label={t('draft.models')}
        columns={columnsFor(words, today)}
        rows={lines}
        rowId={({ id, drafts }) => `${id} ${drafts[0]?.id ?? ''}`}
        empty={t('draft.none')}
      />
      <NewModel models={first.models} open={adding} onClose={() => setAdding(false)} />
    </ListPage>
  );
}

function columnsFor(words: InWords, today: string): Column<Line>[] {
  const { t, language } = words;
  const next = (versions: readonly VersionView[]): string =>
    versions
      .filter(({ inForce, withdrawn }) => !withdrawn && inForce > today)
      .map((each) => t('draft.fromDay', { number: String(each.number), day: date(each.inForce, language) }))
      .join(', ');
  return [
    {
      id: 'name',
      title: t('draft.model'),
      cell: ({ name }) => name,
      sort: ({ name }) => name,
      width: '24ch',
    },
    { id: 'id', title: t('draft.rows.id'), kind: 'code', cell: ({ id }) => id, width: '16ch' },
    { id: 'sku', title: t('draft.sku'), kind: 'code', cell: ({ sku }) => sku, width: '16ch' },
    {
      id: 'version',
      title: t('draft.version'),
      width: '14ch',
      cell: ({ model }) => {
        const current = model?.versions.find((each) => each.current);
        return current ? t('draft.number', { number: String(current.number) }) : t('draft.none');
      },
    },
    {
      id: 'next',
      title: t('draft.next'),
      width: '26ch',
      cell: ({ model }) => (model ? next(model.versions) : ''),
    },
    {
      id: 'drafts',
      title: t('draft.drafts'),
      cell: ({ drafts }) => (
        <span className={css.draftLinks}>
          {drafts.map((draft) => (
            <a
              key={draft.id}
              href={`/models/${draft.id}`}
              title={draft.behind ? t('draft.behindOf') : undefined}
            >
              {draft.name}
            </a>
          ))}
        </span>
      ),
    },
    {
      id: 'act',
      title: '',
      width: '20ch',
      cell: ({ model }) => model && <Begin model={model} words={words} />,
    },
  ];
}

/** Begins a draft of the version in force, and goes there. */
function Begin({ model, words: { t } }: { model: ModelHead; words: InWords }) {
  const [busy, setBusy] = useState(false);
  const base = model.versions.find((each) => each.current) ?? model.versions[0];
  if (!base) return null;
  const begin = async (): Promise<void> => {
    setBusy(true);
    const name = t('draft.number', { number: String((model.versions[0]?.number ?? 0) + 1) });
    const answer = await ask('POST /drafts', { input: { name, from: { is: 'version', version: base.id } } });
    if (answer.ok) window.location.assign(`/models/${answer.value.id}`);
    else {
      setBusy(false);
      say(sentences(answer.failures, t('request.failed')), true);
    }
  };
  return (
    <Button look="plain" disabled={busy} onClick={() => void begin()}>
      {t('draft.begin')}
    </Button>
  );
}
