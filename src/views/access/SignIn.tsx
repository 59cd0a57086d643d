import { useForm } from 'react-hook-form';
import { yupResolver } from '@hookform/resolvers/yup';
import { signInInput, type Role, type SignInInput } from '../../contract';
import { Button, Field } from '../../ui';
import { hasText } from '../../i18n';
import { ask, sentences } from '../api';
import { Speech, useSpeech } from '../speech';
import { Sheet } from './Sheet';
import css from './signin.module.css';

interface Props {
  language: string;
  to: string;
  demo: {
    password: string;
    people: {
      email: string;
      role: Role;
      name: string;
    }[];
  };
  /** Why the form, sent without the page's script, was refused. */
  refusal?: { email: string; text: string } | undefined;
}

export default function SignIn(props: Props) {
  return (
    <Speech language={props.language}>
      <Form {...props} />
    </Speech>
  );
}

function Form({ to, demo, refusal }: Props) {
  const { t } = useSpeech();
  const { register, handleSubmit, setError, setValue, setFocus, formState } = useForm<SignInInput>({
    resolver: yupResolver(signInInput as never),
    mode: 'onSubmit',
    defaultValues: { email: refusal?.email ?? '', password: '' },
    ...(refusal ? { errors: { password: { type: 'refused', message: refusal.text } } } : {}),
  });
  const text = (code?: string) => (code === undefined ? undefined : hasText(code) ? t(code) : code);
  const go = handleSubmit(async (input) => {
    const answer = await ask('POST /session', { input: input });
    if (answer.ok) {
      window.location.assign(to);
      return;
    }
    setError('password', { message: sentences(answer.failures, t('request.failed')) });
    setFocus('password');
  });
  const { ref: emailRef, ...email } = register('email');
  const { ref: passwordRef, ...password } = register('password');
  return (
    <Sheet title="signIn.title">
      <form
        noValidate
        className={css.form}
        method="post"
        action={`/sign-in?to=${encodeURIComponent(to)}`}
        onSubmit={(event) => void go(event)}
      >
        <Field
          label={t('signIn.email')}
          type="email"
          autoComplete="username"
          defaultValue={refusal?.email}
          error={text(formState.errors.email?.message)}
          ref={emailRef}
          {...email}
        />
        <Field
          label={t('signIn.password')}
          type="password"
          autoComplete="current-password"
          error={text(formState.errors.password?.message)}
          ref={passwordRef}
          {...password}
        />
        <Button look="main" type="submit" disabled={formState.isSubmitting}>
          {t('signIn.go')}
        </Button>
      </form>
      <section className={css.demo} aria-label={t('signIn.demo')}>
        <h2>{t('signIn.demo')}</h2>
        <p className={css.quiet}>{t('signIn.demoHint', { password: demo.password })}</p>
        <ul>
          {demo.people.map((person) => (
            <li key={person.email}>
              <button
                type="button"
                className={css.person}
                onClick={() => {
                  setValue('email', person.email);
                  setValue('password', demo.password);
                }}
              >
                <span>{t(`role.${person.role}`)}</span>
                <span className={css.email}>{person.email}</span>
              </button>
            </li>
          ))}
        </ul>
      </section>
    </Sheet>
  );
}
