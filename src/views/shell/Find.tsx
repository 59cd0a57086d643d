import { useRef, useState, type RefObject } from 'react';
import { keysIn, own } from '../../i18n';
import { Combobox, type ComboOption } from '../../ui';
import { ask } from '../api';
import { pause } from '../parts/pause';
import { useSpeech } from '../speech';
import { commandsFor } from './commands';

interface Hit {
  kind: 'customer' | 'quote' | 'order' | 'item';
  id: string;
  label: string | Record<string, string>;
  detail: string;
}

/** The field of search-or-do. */
export function Find({ from }: { from: RefObject<HTMLElement | null> }) {
  const { t, language } = useSpeech();
  const [text, setText] = useState('');
  const [hits, setHits] = useState<Hit[]>([]);
  const [looking, setLooking] = useState(false);
  const latest = useRef(0);

  const find = async (typed: string) => {
    setText(typed);
    const turn = ++latest.current;
    setLooking(typed.trim() !== '');
    // Asked once typing pauses, not with every key.
    await new Promise((next) => setTimeout(next, pause));
    if (turn !== latest.current) return;
    const answer = typed.trim() ? await ask('GET /search', { query: { find: typed } }) : null;
    if (turn !== latest.current) return;
    setHits(answer?.ok ? answer.value : []);
    setLooking(false);
  };
  // Commands stand first, so that nothing moves under the hand when what the server finds arrives.
  const sure = commandsFor(text);
  const commands = sure.length === 0 && hits.length === 0 && !looking ? commandsFor(text, true) : sure;
  const options: ComboOption[] = [
    ...commands.map(({ id, text: name, keys }) => ({
      id: `do:${id}`,
      text: name,
      detail: [t('frame.kind.command'), ...(keys === undefined ? [] : [keysIn(keys, language)])].join(' · '),
    })),
    ...(looking
      ? []
      : hits.map((hit) => ({
          id: `${hit.kind}:${hit.id}`,
          text: typeof hit.label === 'string' ? hit.label : own(hit.label, language),
          detail: `${t(`frame.kind.${hit.kind}`)} · ${hit.detail}`,
        }))),
  ];
  const leave = () => {
    setText('');
    from.current?.focus();
  };
  const go = async ({ id }: ComboOption) => {
    const [kind, value = ''] = id.split(':');
    leave();
    if (kind === 'do') commands.find((each) => each.id === value)?.act();
    else if (kind === 'quote') window.location.assign(`/quotes/${value}`);
    else if (kind === 'order') window.location.assign(`/orders/${value}`);
    else if (kind === 'item') window.location.assign(`/catalogue?find=${encodeURIComponent(value)}`);
    else {
      const answer = await ask('POST /quotes', { input: { customerId: value, title: '' } });
      if (answer.ok) window.location.assign(`/quotes/${answer.value.id}`);
    }
  };
  return (
    <div
      onKeyDown={(event) => {
        if (event.key === 'Escape') leave();
      }}
    >
      <Combobox
        label={t('frame.search')}
        hideLabel
        placeholder={`${t('frame.search')}  ${keysIn('Ctrl K', language)}`}
        inputId="find"
        text={text}
        options={options}
        none={t('frame.noHits', { text })}
        looking={looking ? t('frame.looking') : undefined}
        onText={(typed) => void find(typed)}
        onChoose={(option) => void go(option)}
      />
    </div>
  );
}
