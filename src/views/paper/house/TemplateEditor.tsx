import { useEffect, useState, useSyncExternalStore } from 'react';
import type { PaperHouseView, PaperTemplate, PaperView } from '../../../contract';
import { composedBy, type Composition, type TemplateContent } from '../../../core/paper';
import { own } from '../../../i18n';
import { Button, Field, Select } from '../../../ui';
import { ask } from '../../api';
import { useSpeech } from '../../speech';
import { Blocks } from '../Blocks';
import { Pages } from '../Pages';
import { PaperSession } from '../session/paper-session';
import { pagesFor } from '../session/usePaper';
import { AddText } from './AddText';
import { Mark } from './Mark';
import type { Editing } from './types';
import css from './paper-house.module.css';

interface Props extends Editing {
  template: PaperTemplate;
  house: PaperHouseView;
  /** The quote whose pages show what it makes. */
  tried: PaperView;
}

/** For whom a template is meant, apart from its blocks. */
type Meant = Omit<TemplateContent, 'blocks' | 'lines' | 'drawings' | 'colour'>;

/** A session on the document that the template makes of a quote; it is kept as a template, when somebody says so. */
function sessionOf(template: PaperTemplate, house: PaperHouseView, tried: PaperView): PaperSession {
  const composition = composedBy(template.code, template.content, tried.usual);
  const view: PaperView = { ...tried, composition, texts: house.texts, mayEdit: true, warnings: [] };
  const kept = { ok: true as const, value: view };
  return new PaperSession(view, {
    keep: () => Promise.resolve(kept),
    load: () => Promise.resolve(kept),
    pages: (now, signal) => pagesFor(tried.quote, now, signal),
    rest: () => Promise.resolve(),
    pause: () => Promise.resolve(),
  });
}

/** A template: for whom it is meant, its blocks, and the pages that it makes of a quote. */
export function TemplateEditor({ template, house, tried, onKeep, onChanged, onSure }: Props) {
  const { t, language } = useSpeech();
  const [session] = useState(() => sessionOf(template, house, tried));
  const stand = useSyncExternalStore(session.subscribe, session.seen, session.seen);
  const [meant, setMeant] = useState<Meant>(() => meantOf(template.content));
  const [block, setBlock] = useState<string | null>(null);
  const [empty, setEmpty] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => session.open(), [session]);
  const { composition } = stand;
  const changed = stand.canUndo || JSON.stringify(meant) !== JSON.stringify(meantOf(template.content));
  const title = own(meant.name, language);
  useEffect(() => onChanged(changed ? title : null), [changed, title, onChanged]);
  const keep = (): Promise<boolean> =>
    onKeep(
      ask('PUT /paper/templates/{code}', {
        at: { code: template.code },
        input: { version: template.version, content: contentOf(meant, composition) },
      }),
    );
  const drop = (): Promise<boolean> =>
    onKeep(
      ask('DELETE /paper/templates/{code}', {
        at: { code: template.code },
        input: { version: template.version },
      }),
    );
  return (
    <section className={css.template} aria-label={title}>
      <header className={css.bar}>
        <h1>{title}</h1>
        <Button onClick={() => onSure({ is: 'drop', name: title, go: () => void drop() })}>
          {t('paperHouse.drop')}
        </Button>
        <Button look="main" disabled={!changed} onClick={() => void keep()}>
          {t('paperHouse.keep')}
        </Button>
      </header>
      <div className={css.chosen}>
        <MeantFor
          meant={meant}
          house={house}
          composition={composition}
          session={session}
          onMeant={setMeant}
        />
        <Blocks paper={{ ...stand, session }} open={block} empty={empty} onOpen={setBlock} />
        <AddText paper={{ ...stand, session }} />
      </div>
      <div className={css.shown} data-setting={stand.setting || undefined}>
        <Pages set={stand.pages} block={stand.changed} usual={520} onEmpty={setEmpty} />
      </div>
    </section>
  );
}

const meantOf = ({
  blocks: _blocks,
  lines: _lines,
  drawings: _drawings,
  colour: _colour,
  ...meant
}: TemplateContent): Meant => meant;

const contentOf = (meant: Meant, { blocks, lines, drawings, colour }: Composition): TemplateContent => ({
  ...meant,
  // What is written for one quote alone has no place in a template.
  blocks: blocks.map((each) => ({ ...each, own: null })),
  lines,
  drawings,
  colour,
});

interface MeantProps {
  meant: Meant;
  house: PaperHouseView;
  composition: Composition;
  session: PaperSession;
  onMeant: (meant: Meant) => void;
}

const classesOf = ['direct', 'key', 'public', 'dealer'] as const;

function MeantFor({ meant, house, composition, session, onMeant }: MeantProps) {
  const { t } = useSpeech();
  const change = (more: Partial<Meant>): void => onMeant({ ...meant, ...more });
  const any = { value: '', text: t('paperHouse.any') };
  return (
    <div className={css.meant}>
      {(['en', 'de'] as const).map((each) => (
        <Field
          key={each}
          label={t('paperHouse.nameIn', { language: t(`composer.languages.${each}`) })}
          value={meant.name[each] ?? ''}
          maxLength={120}
          onChange={(event) => change({ name: { ...meant.name, [each]: event.target.value } })}
        />
      ))}
      <Select
        label={t('paperHouse.market')}
        value={meant.market ?? ''}
        options={[any, ...house.markets.map(({ code, name }) => ({ value: code, text: name }))]}
        onChange={(event) => change({ market: event.target.value || null })}
      />
      <Select
        label={t('paperHouse.class')}
        value={meant.class ?? ''}
        options={[any, ...classesOf.map((value) => ({ value, text: t(`class.${value}`) }))]}
        onChange={(event) => change({ class: event.target.value || null })}
      />
      <Select
        label={t('paperHouse.dealers')}
        value={meant.dealers}
        options={[
          { value: 'none', text: t('paperHouse.ownQuotes') },
          { value: 'any', text: t('paperHouse.anyDealer') },
          ...house.dealers.map(({ id, name }) => ({ value: id, text: name })),
        ]}
        onChange={(event) => change({ dealers: event.target.value })}
      />
      <Select
        label={t('composer.language')}
        value={meant.language ?? ''}
        options={[
          { value: '', text: t('paperHouse.byCustomer') },
          { value: 'en', text: t('composer.languages.en') },
          { value: 'en-US', text: t('composer.languages.enUS') },
          { value: 'de', text: t('composer.languages.de') },
        ]}
        onChange={(event) => change({ language: (event.target.value || null) as Meant['language'] })}
      />
      <Select
        label={t('composer.paper')}
        value={meant.paper ?? ''}
        options={[
          { value: '', text: t('paperHouse.byMarket') },
          { value: 'A4', text: t('composer.papers.A4') },
          { value: 'letter', text: t('composer.papers.letter') },
        ]}
        onChange={(event) => change({ paper: (event.target.value || null) as Meant['paper'] })}
      />
      <Field
        label={t('paperHouse.colour')}
        type="color"
        value={composition.colour}
        onChange={(event) => {
          const colour = event.target.value;
          session.change((now) => ({ ...now, colour }), null, 'colour');
        }}
      />
      <Mark mark={meant.mark} onMark={(mark) => change({ mark })} />
    </div>
  );
}
