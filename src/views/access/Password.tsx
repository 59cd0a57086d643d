import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import { shortestPassword, type LinkView } from '../../contract';
import { Button, Field, LinkButton } from '../../ui';
import { ask, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { Sheet } from './Sheet';
import css from './signin.module.css';

/** Where somebody sets their password by a link that works once. */
export default function Password({ language }: { language: string }) {
  return (
    <Speech language={language}>
      <Sheet title="password.title">
        <Page />
      </Sheet>
    </Speech>
  );
}

/** What is known of the link: nothing yet, why it is none, whose it is, or that it has been used just now. */
type Link =
  { is: 'looking' } | { is: 'set' } | { is: 'wrong'; why: string } | { is: 'open'; whose: LinkView };

function Page() {
  const { t } = useSpeech();
  const [link, setLink] = useState<Link>({ is: 'looking' });
  useEffect(() => {
    let here = true;
    void ask('POST /password/link', { input: { token: tokenHere() } }).then((answer) => {
      if (!here) return;
      setLink(
        answer.ok
          ? { is: 'open', whose: answer.value }
          : { is: 'wrong', why: sentences(answer.failures, t('request.failed')) },
      );
    });
    return () => {
      here = false;
    };
  }, [t]);
  if (link.is === 'looking') return <p className={css.quiet}>{t('password.looking')}</p>;
  if (link.is === 'wrong')
    return (
      <p className={css.wrong} role="alert">
        {link.why}
      </p>
    );
  if (link.is === 'set')
    return (
      <div className={css.form} role="status">
        <p>{t('password.set')}</p>
        <LinkButton look="main" href="/sign-in" autoFocus>
          {t('password.toSignIn')}
        </LinkButton>
      </div>
    );
  return (
    <Form
      whose={link.whose}
      onSet={() => setLink({ is: 'set' })}
      onWrong={(why) => setLink({ is: 'wrong', why })}
    />
  );
}

/** The token of the link, which stands behind the hash: no server on the way reads it. */
const tokenHere = (): string => window.location.hash.slice(1);

function Form({
  whose,
  onSet,
  onWrong,
}: {
  whose: LinkView;
  onSet: () => void;
  onWrong: (why: string) => void;
}) {
  const { t } = useSpeech();
  const [shown, setShown] = useState(false);
  const { register, handleSubmit, setError, formState } = useForm({ defaultValues: { password: '' } });
  const go = handleSubmit(async ({ password }) => {
    if (password.length < shortestPassword) {
      setError('password', { message: t('password.short') }, { shouldFocus: true });
      return;
    }
    const answer = await ask('POST /password', { input: { token: tokenHere(), password } });
    if (answer.ok) {
      // A link that was used is of no use in the history.
      window.history.replaceState(null, '', window.location.pathname);
      onSet();
      return;
    }
    const why = sentences(answer.failures, t('request.failed'));
    if (answer.failures.some(({ code }) => code.endsWith('Link'))) onWrong(why);
    else setError('password', { message: why }, { shouldFocus: true });
  });
  return (
    <form noValidate className={css.form} onSubmit={(event) => void go(event)}>
      <p className={css.quiet}>{t('password.for', { name: whose.name, email: whose.email })}</p>
      {/* For what keeps passwords: whose it is. */}
      <input hidden type="email" autoComplete="username" readOnly value={whose.email} />
      <Field
        label={t('password.new')}
        type={shown ? 'text' : 'password'}
        autoComplete="new-password"
        autoFocus
        hint={t('password.hint')}
        error={formState.errors.password?.message}
        {...register('password')}
      />
      <label className={css.check}>
        <input type="checkbox" checked={shown} onChange={(event) => setShown(event.target.checked)} />
        {t('password.show')}
      </label>
      <Button look="main" type="submit" disabled={formState.isSubmitting}>
        {t('password.go')}
      </Button>
    </form>
  );
}
