import { deskDe } from './desk.de';
import { catalogueDe } from './catalogue.de';
import { customersDe } from './customers.de';
import { quotesDe } from './quotes.de';
import { signOffDe } from './sign-off.de';
import { ledgerDe } from './ledger.de';
import { ordersDe } from './orders.de';
import { paperDe } from './paper.de';

/** German texts of selling: Desk, catalogue, customers, quotes, orders. */
export const texts = {
  ...deskDe,
  ...catalogueDe,
  ...customersDe,
  ...quotesDe,
  ...signOffDe,
  ...ledgerDe,
  ...ordersDe,
  ...paperDe,
};
