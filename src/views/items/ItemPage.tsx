import { useState, type ReactNode } from 'react';
import { ArrowLeft } from 'lucide-react';
import type { ItemView } from '../../contract';
import { itemKinds, type Item } from '../../core/items';
import { own } from '../../i18n';
import { Button, Field, LinkButton, Select, say } from '../../ui';
import { ask, sentences, type Refusal } from '../api';
import { unitText } from '../parts/unit-text';
import { Speech, useSpeech } from '../speech';
import { Bars } from './Bars';
import { ItemAside } from './ItemAside';
import { ItemFiles } from './ItemFiles';
import { Properties } from './Properties';
import { FigureField, TextArea } from './fields';
import { ItemLinks } from './ItemLinks';
import { changedFields, useItem, type ItemDraft } from './useItem';
import css from './item.module.css';

interface Props {
  language: string;
  first: ItemView;
}

export default function ItemPage({ language, first }: Props) {
  return (
    <Speech language={language}>
      <Page first={first} />
    </Speech>
  );
}

function Page({ first }: Pick<Props, 'first'>) {
  const { t, language } = useSpeech();
  const [view, setView] = useState(first);
  const [refusals, setRefusals] = useState<readonly Refusal[]>([]);
  const draft = useItem(view, refusals);
  const { item, changed } = draft;
  const keep = async (): Promise<void> => {
    const answer = await ask('PUT /catalogue/items/{sku}', {
      at: { sku: item.sku },
      input: { version: view.version, ...changedFields(view.item, item) },
    });
    if (answer.ok) {
      setView(answer.value);
      draft.begin(answer.value.item);
      setRefusals([]);
      say(t('house.kept'));
      return;
    }
    setRefusals(answer.failures);
    say(sentences(answer.failures, t('request.failed')), true);
  };
  return (
    <div className={css.item}>
      <header className={css.itemHead}>
        <LinkButton look="plain" href="/items" aria-label={t('items.back')}>
          <ArrowLeft size={15} aria-hidden />
        </LinkButton>
        <h1>
          {own(item.name, language)} <span className={css.number}>{item.sku}</span>
        </h1>
        <span className={css.quiet}>{changed ? t('house.unsaved') : ''}</span>
        <Button disabled={!changed} onClick={() => draft.begin(view.item)}>
          {t('house.back')}
        </Button>
        <Button look="main" disabled={!changed || draft.wrong} onClick={() => void keep()}>
          {t('house.keep')}
        </Button>
      </header>
      <div className={css.itemFields}>
        <Group title={t('items.group.words')}>
          <Words draft={draft} />
        </Group>
        <Group title={t('items.group.figures')}>
          <Figures draft={draft} view={view} />
        </Group>
        <Group title={t('items.group.selling')}>
          <Selling draft={draft} view={view} />
        </Group>
        <Group title={t('items.properties')}>
          <Properties draft={draft} properties={view.properties} />
        </Group>
        <Group title={t('items.group.bars')}>
          <Bars draft={draft} view={view} />
        </Group>
        <Group title={t('items.group.others')}>
          <ItemLinks draft={draft} />
        </Group>
        <Group title={t('items.group.files')}>
          <ItemFiles draft={draft} view={view} />
        </Group>
      </div>
      <ItemAside view={view} />
    </div>
  );
}

function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className={css.group} aria-label={title}>
      <h2>{title}</h2>
      <div className={css.fields}>{children}</div>
    </section>
  );
}

const languages = ['en', 'de'] as const;

/** Its names, what customers read, and what colleagues should know. */
function Words({ draft }: { draft: ItemDraft }) {
  const { t } = useSpeech();
  const { item, change, errorAt } = draft;
  return languages.map((language) => {
    const inLanguage = { language: t(`items.languages.${language}`) };
    const set = (field: 'name' | 'says' | 'note', text: string): void =>
      change({ [field]: { ...item[field], [language]: text } });
    return (
      <div key={language} className={css.half}>
        <Field
          label={t('items.nameIn', inLanguage)}
          value={item.name[language] ?? ''}
          maxLength={200}
          error={language === 'en' ? errorAt('name') : undefined}
          onChange={(event) => set('name', event.target.value)}
        />
        <TextArea
          label={t('items.saysIn', inLanguage)}
          value={item.says[language] ?? ''}
          most={4_000}
          rows={4}
          onText={(text) => set('says', text)}
        />
        <TextArea
          label={t('items.noteIn', inLanguage)}
          value={item.note[language] ?? ''}
          most={2_000}
          rows={2}
          onText={(text) => set('note', text)}
        />
      </div>
    );
  });
}

/** What kind of thing it is, and its figures. */
function Figures({ draft, view }: { draft: ItemDraft; view: ItemView }) {
  const { t, language } = useSpeech();
  const { item, change, errorAt } = draft;
  return (
    <>
      <Select
        label={t('items.field.family')}
        value={item.family}
        options={view.families.map(({ code, name }) => ({ value: code, text: own(name, language) }))}
        onChange={(event) => change({ family: event.target.value })}
      />
      <Select
        label={t('items.field.kind')}
        value={item.kind}
        disabled={view.item.kind === 'model'}
        options={itemKinds
          .filter((kind) => kind !== 'model' || view.item.kind === 'model')
          .map((kind) => ({ value: kind, text: t(`items.kind.${kind}`) }))}
        onChange={(event) => change({ kind: event.target.value as Item['kind'] })}
      />
      <Field
        label={t('items.field.unit')}
        value={item.unit}
        hint={unitText(item.unit, t) === item.unit ? undefined : unitText(item.unit, t)}
        maxLength={12}
        error={errorAt('unit')}
        onChange={(event) => change({ unit: event.target.value })}
      />
      <FigureField draft={draft} field="cost" label={t('items.costEach')} decimals={6} />
      <FigureField draft={draft} field="leadDays" label={t('items.leadDays')} decimals={0} />
      <FigureField draft={draft} field="mass" label={t('items.massEach')} decimals={6} />
    </>
  );
}

/** How it is sold. */
function Selling({ draft, view }: { draft: ItemDraft; view: ItemView }) {
  const { t } = useSpeech();
  const { item, change } = draft;
  return (
    <>
      <div className={css.checks}>
        {(['active', 'sold', 'discountable', 'serials'] as const).map((field) => (
          <label key={field} className={css.check}>
            <input
              type="checkbox"
              checked={item[field]}
              onChange={(event) => change({ [field]: event.target.checked })}
            />
            {t(`items.is.${field}`)}
          </label>
        ))}
      </div>
      <FigureField draft={draft} field="usualQuantity" label={t('items.field.usualQuantity')} decimals={3} />
      <FigureField draft={draft} field="step" label={t('items.field.step')} decimals={3} />
      <Select
        label={t('items.field.taxClass')}
        value={item.taxClass}
        options={[...new Set([...view.taxClasses, item.taxClass])].map((value) => ({ value, text: value }))}
        onChange={(event) => change({ taxClass: event.target.value })}
      />
      <FigureField draft={draft} field="coversMonths" label={t('items.field.coversMonths')} decimals={0} />
    </>
  );
}
