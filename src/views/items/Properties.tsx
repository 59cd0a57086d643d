import type { ItemProperty, PropertyValue } from '../../core/items';
import { own } from '../../i18n';
import { Field, Select } from '../../ui';
import { useSpeech } from '../speech';
import { NumberField } from '../parts/NumberField';
import type { ItemDraft } from './useItem';
import css from './item.module.css';

/** What an item says of the properties of its family. */
export function Properties({ draft, properties }: { draft: ItemDraft; properties: readonly ItemProperty[] }) {
  const { t } = useSpeech();
  if (properties.length === 0) return <p className={css.quiet}>{t('items.noProperties')}</p>;
  return properties.map((property) => <One key={property.id} draft={draft} property={property} />);
}

function One({ draft, property }: { draft: ItemDraft; property: ItemProperty }) {
  const { t, language } = useSpeech();
  const { item, change, mark, errorAt, turn } = draft;
  const { id } = property;
  const field = `properties.${id}`;
  const value = item.properties[id];
  const set = (next: PropertyValue | null): void => {
    const { [id]: _before, ...others } = item.properties;
    change({ properties: next === null ? others : { ...others, [id]: next } });
  };
  const label = own(property.name, language);
  const text = typeof value === 'string' ? value : '';
  switch (property.is) {
    case 'number':
      return (
        <NumberField
          key={turn}
          label={property.unit === '' ? label : `${label}, ${property.unit}`}
          value={text === '' ? null : text}
          decimals={property.decimals}
          error={errorAt(field)}
          onWrong={(wrong) => mark(field, wrong)}
          onValue={set}
        />
      );
    case 'choice':
      return (
        <Select
          label={label}
          value={text}
          options={[
            { value: '', text: t('items.unsaid') },
            ...property.options.map((option) => ({ value: option.id, text: own(option.name, language) })),
          ]}
          onChange={(event) => set(event.target.value || null)}
        />
      );
    case 'yesNo':
      return (
        <Select
          label={label}
          value={value === undefined ? '' : value === true ? 'yes' : 'no'}
          options={[
            { value: '', text: t('items.unsaid') },
            { value: 'yes', text: t('items.yes') },
            { value: 'no', text: t('items.no') },
          ]}
          onChange={(event) => set(event.target.value === '' ? null : event.target.value === 'yes')}
        />
      );
    case 'text':
      return (
        <Field
          label={label}
          value={text}
          maxLength={500}
          error={errorAt(field)}
          onChange={(event) => set(event.target.value || null)}
        />
      );
  }
}
