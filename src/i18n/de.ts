import { shellDe } from './shell.de';
import { accessDe } from './access.de';
import { deskDe } from './desk.de';
import { catalogueDe } from './catalogue.de';
import { customersDe } from './customers.de';
import { quotesDe } from './quotes.de';
import { signOffDe } from './sign-off.de';
import { ledgerDe } from './ledger.de';
import { pricesDe } from './prices.de';
import { benchDe } from './bench.de';
import { panelsDe } from './panels.de';
import { ordersDe } from './orders.de';
import { auditDe } from './audit.de';
import { jobsDe } from './jobs.de';
import { paperDe } from './paper.de';
import { programsDe } from './programs.de';
import { workshopDe } from './workshop.de';
import type { en } from './en';
import type { SameTexts } from './same-texts';

/** Every text of the interface in German, room by room. */
export const de: SameTexts<typeof en> = {
  ...shellDe,
  ...accessDe,
  ...deskDe,
  ...catalogueDe,
  ...customersDe,
  ...quotesDe,
  ...signOffDe,
  ...ledgerDe,
  ...pricesDe,
  ...benchDe,
  ...panelsDe,
  ...ordersDe,
  ...auditDe,
  ...jobsDe,
  ...paperDe,
  ...programsDe,
  ...workshopDe,
};
