/** English texts of the page for those who write programs. What an endpoint does is said in English alone. */
export const programsEn = {
  programs: {
    lead: 'Every endpoint, who may call it, what it takes and what it answers, as the server enforces it.',
    signIn:
      'Sign in with POST /api/session and send the cookie that it sets. What changes something takes an Idempotency-Key and is done once, however often it is sent. Money, rates and measures are decimals as text. A refusal has a code, which never changes, and a sentence.',
    document: 'The same as an OpenAPI 3.1 document',
    who: 'Who',
    anyone: 'anyone',
    everybody: 'all who are signed in',
    takes: 'Takes',
    reads: 'Reads from the address',
    answers: 'Answers',
    types: 'What is answered',
    aFile: 'the bytes of a file',
    optional: 'may be absent',
  },
};
