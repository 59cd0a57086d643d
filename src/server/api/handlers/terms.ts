import { isTermKind } from '../../../contract';
import type { terms } from '../../../contract/all';
import type { TermKindId } from '../../../core/terms';
import { done, fail, type Result } from '../../../services/kernel/failure';
import { keepTerms, seeTermHistory, seeTerms, termsFile } from '../../../services/terms/terms';
import { askForTermsImpact, seeTermsImpact, termsImpactFile } from '../../../services/terms/try';
import type { Handlers } from './handler';

/** Does something with a kind, where there is one of that name. */
const withKind = <T>(name: string, work: (kind: TermKindId) => Promise<Result<T>>): Promise<Result<T>> =>
  isTermKind(name) ? work(name) : Promise.resolve(fail('missing', { code: 'term.noKind' }));

/** What answers the endpoints of this room. */
export const termsHandlers: Handlers<typeof terms> = {
  'GET /terms/{kind}': ({ at, query }) =>
    withKind(at.kind, async (kind) => done(await seeTerms(kind, query.past === 'yes'))),
  'PUT /terms/{kind}': ({ actor, at, input }) => withKind(at.kind, (kind) => keepTerms(actor, kind, input)),
  'GET /terms/{kind}/as.{format}': ({ actor, at }) =>
    withKind(at.kind, (kind) => termsFile(actor, kind, at.format)),
  'GET /terms/history/{kind}/{id}': ({ at }) => withKind(at.kind, (kind) => seeTermHistory(kind, at.id)),
  'POST /terms/{kind}/try': ({ actor, at, input }) =>
    withKind(at.kind, (kind) => askForTermsImpact(actor, kind, input)),
  'GET /terms/tried/{job}': ({ actor, at, query }) => seeTermsImpact(actor, at.job, query),
  'GET /terms/tried/{job}/as.{format}': ({ actor, at, query }) =>
    termsImpactFile(actor, at.job, at.format, query),
};
