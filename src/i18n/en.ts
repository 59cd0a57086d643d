import { shellEn } from './shell.en';
import { accessEn } from './access.en';
import { deskEn } from './desk.en';
import { catalogueEn } from './catalogue.en';
import { customersEn } from './customers.en';
import { quotesEn } from './quotes.en';
import { signOffEn } from './sign-off.en';
import { ledgerEn } from './ledger.en';
import { pricesEn } from './prices.en';
import { benchEn } from './bench.en';
import { panelsEn } from './panels.en';
import { ordersEn } from './orders.en';
import { auditEn } from './audit.en';
import { jobsEn } from './jobs.en';
import { paperEn } from './paper.en';
import { programsEn } from './programs.en';
import { workshopEn } from './workshop.en';

/** Every text of the interface in English, room by room. */
export const en = {
  ...shellEn,
  ...accessEn,
  ...deskEn,
  ...catalogueEn,
  ...customersEn,
  ...quotesEn,
  ...signOffEn,
  ...ledgerEn,
  ...pricesEn,
  ...benchEn,
  ...panelsEn,
  ...ordersEn,
  ...auditEn,
  ...jobsEn,
  ...paperEn,
  ...programsEn,
  ...workshopEn,
};
