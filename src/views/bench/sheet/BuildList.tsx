import { Fragment, useState } from 'react';
import type { MaterialNeed } from '../../../core/production';
import type { BenchView } from '../../../contract';
import type { SpecialPart } from '../../../core/builds';
import { shownUnit, shownValue } from '../../../core/exact';
import { number, own } from '../../../i18n';
import { Button } from '../../../ui';
import { useSpeech } from '../../speech';
import shared from '../bench.module.css';
import css from '../head/strip.module.css';
import type { Bench } from '../session/useBench';
import type { Words } from '../words';
import { specialMark } from './marks';
import { SpecialForm } from './SpecialForm';

interface Props {
  bench: Bench;
  view: BenchView;
  words: Words;
  frozen: boolean;
}

/**
 * What the build is made of, growing as it is made; a build inside is a sub-assembly of its own. A part can
 * be replaced by a special one.
 */
export function BuildList(props: Props) {
  const { bench, view, words, frozen } = props;
  const { t } = useSpeech();
  const [replacing, setReplacing] = useState<string>();
  const { materials } = bench.picture.making;
  const special = new Map(bench.content.special.map((part) => [part.item, part]));
  const places = [...new Set(materials.map((need) => need.place))];
  return (
    <table className={shared.table}>
      <thead>
        <tr>
          <th scope="col">{t('bench.item')}</th>
          <th scope="col">{t('bench.name')}</th>
          <th scope="col" className={shared.figure}>
            {t('bench.cut')}
          </th>
          <th scope="col" className={shared.figure}>
            {t('bench.quantity')}
          </th>
          {view.may.special && !frozen && <td />}
        </tr>
      </thead>
      <tbody>
        {places.map((place) => (
          <Fragment key={place ?? ''}>
            {place !== undefined && (
              <tr>
                <th scope="rowgroup" colSpan={5} className={css.assembly}>
                  {words.place(place)} <span className={shared.code}>{bench.picture.inside[place]}</span>
                </th>
              </tr>
            )}
            {materials
              .filter((need) => need.place === place)
              .map((need) => (
                <Need
                  key={need.row}
                  {...props}
                  need={need}
                  part={special.get(need.item)}
                  replacing={replacing === need.row}
                  onReplace={setReplacing}
                />
              ))}
          </Fragment>
        ))}
      </tbody>
    </table>
  );
}

/** An item that is needed, or the special part in its place; replacing it opens a form beneath. */
function Need({
  need,
  part,
  replacing,
  onReplace,
  bench,
  view,
  words,
  frozen,
}: Props & {
  need: MaterialNeed;
  part: SpecialPart | undefined;
  replacing: boolean;
  onReplace: (row: string | undefined) => void;
}) {
  const { t, language } = useSpeech();
  const name = own(view.itemNames[need.item], language);
  const replace = t('special.replace', { name });
  return (
    <>
      <tr className={need.place === undefined ? undefined : css.within}>
        <td className={shared.code}>{need.item}</td>
        <td>
          {part ? (
            <>
              <b className={css.special}>{t('special.word')}</b> {part.text}{' '}
              <span className={shared.quiet}>{t('special.insteadOf', { name })}</span>
            </>
          ) : (
            name
          )}
        </td>
        <td className={shared.figure}>{cutOf(need, words, language)}</td>
        <td className={shared.figure}>{number(need.quantity, language, 2)}</td>
        {view.may.special && !frozen && (
          <td className={css.act}>
            {part ? (
              <Button look="plain" onClick={() => void bench.replace(need.item, null)}>
                {t('special.back')}
              </Button>
            ) : (
              <Button
                look="plain"
                aria-label={replace}
                title={replace}
                onClick={() => onReplace(replacing ? undefined : need.row)}
              >
                {specialMark}
              </Button>
            )}
          </td>
        )}
      </tr>
      {replacing && (
        <tr>
          <td colSpan={5}>
            <SpecialForm
              item={need.item}
              view={view}
              onMake={(made) => {
                onReplace(undefined);
                void bench.replace(need.item, made);
              }}
              onLeave={() => onReplace(undefined)}
            />
          </td>
        </tr>
      )}
    </>
  );
}

/** What is cut to length: how many pieces, and how long each. */
function cutOf({ cut, pieces }: MaterialNeed, words: Words, language: string): string {
  if (!cut) return '';
  const length = `${number(shownValue(cut, 'm', words.units), language, 3)} ${shownUnit('m', words.units)}`;
  return pieces ? `${pieces} × ${length}` : length;
}
