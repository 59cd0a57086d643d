/** English texts of signing in. */
export const accessEn = {
  signIn: {
    title: 'Sign in',
    email: 'E-mail',
    password: 'Password',
    go: 'Sign in',
    wrong: 'E-mail and password do not match. Check both and try again.',
    needed: 'You are not signed in, or your session is over. Sign in again.',
    tooMany: 'Too many failed tries. Wait {{seconds}} seconds and try again.',
    emailMissing: 'Type your e-mail.',
    passwordMissing: 'Type your password.',
    demo: 'Demo sign-ins',
    demoHint: 'All with the password "{{password}}".',
  },
};
