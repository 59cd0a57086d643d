import { useState } from 'react';
import { readWritten } from '../../core/exact';
import type { ItemProperty, PropertyFilter, PropertyFilters } from '../../core/items';
import { own } from '../../i18n';
import { Field, Select } from '../../ui';
import { useSpeech } from '../speech';
import css from './catalogue.module.css';

interface Props {
  properties: readonly ItemProperty[];
  filters: PropertyFilters;
  onFilters: (filters: PropertyFilters) => void;
}

/** What is wanted of the properties of a family. */
export function Filters({ properties, filters, onFilters }: Props) {
  const { t } = useSpeech();
  if (properties.length === 0) return null;
  const set = (id: string, filter: PropertyFilter | null): void => {
    const { [id]: _before, ...others } = filters;
    onFilters(filter ? { ...others, [id]: filter } : others);
  };
  return (
    <div className={css.filters} role="group" aria-label={t('catalogue.filters')}>
      {properties.map((property) => (
        <One
          key={property.id}
          property={property}
          filter={filters[property.id]}
          onFilter={(filter) => set(property.id, filter)}
        />
      ))}
    </div>
  );
}

function One({
  property,
  filter,
  onFilter,
}: {
  property: ItemProperty;
  filter: PropertyFilter | undefined;
  onFilter: (filter: PropertyFilter | null) => void;
}) {
  const { t, language } = useSpeech();
  const label = own(property.name, language);
  const any = { value: '', text: t('catalogue.any') };
  switch (property.is) {
    case 'choice':
      return (
        <Select
          label={label}
          value={filter?.is === 'one' ? String(filter.value) : ''}
          options={[
            any,
            ...property.options.map(({ id, name }) => ({ value: id, text: own(name, language) })),
          ]}
          onChange={({ target }) => onFilter(target.value === '' ? null : { is: 'one', value: target.value })}
        />
      );
    case 'yesNo':
      return (
        <Select
          label={label}
          value={filter?.is === 'one' ? String(filter.value) : ''}
          options={[
            any,
            { value: 'true', text: t('catalogue.yes') },
            { value: 'false', text: t('catalogue.no') },
          ]}
          onChange={({ target }) =>
            onFilter(target.value === '' ? null : { is: 'one', value: target.value === 'true' })
          }
        />
      );
    case 'number': {
      const range = filter?.is === 'range' ? filter : { is: 'range' as const, from: null, to: null };
      const unit = property.unit === '' ? '' : `, ${property.unit}`;
      return (['from', 'to'] as const).map((end) => (
        <Border
          key={end}
          label={`${label} ${t(`catalogue.${end}`)}${unit}`}
          onValue={(value) => {
            const next = { ...range, [end]: value };
            onFilter(next.from === null && next.to === null ? null : next);
          }}
        />
      ));
    }
    case 'text':
      return null;
  }
}

/** A number from or to which something is wanted; while it cannot be read nothing is asked for. */
function Border({ label, onValue }: { label: string; onValue: (value: string | null) => void }) {
  const { t, language } = useSpeech();
  const [typed, setTyped] = useState('');
  const read = readWritten(typed, language);
  return (
    <Field
      label={label}
      value={typed}
      inputMode="decimal"
      error={typed.trim() !== '' && read.is === 'none' ? t('catalogue.noNumber') : undefined}
      onChange={({ target }) => {
        setTyped(target.value);
        const now = readWritten(target.value, language);
        onValue(now.is === 'none' ? null : now.is === 'number' ? now.value : now.values[0]);
      }}
    />
  );
}
