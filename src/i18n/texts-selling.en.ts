import { deskEn } from './desk.en';
import { catalogueEn } from './catalogue.en';
import { customersEn } from './customers.en';
import { quotesEn } from './quotes.en';
import { signOffEn } from './sign-off.en';
import { ledgerEn } from './ledger.en';
import { ordersEn } from './orders.en';
import { paperEn } from './paper.en';

/** English texts of selling: Desk, catalogue, customers, quotes, orders. */
export const texts = {
  ...deskEn,
  ...catalogueEn,
  ...customersEn,
  ...quotesEn,
  ...signOffEn,
  ...ledgerEn,
  ...ordersEn,
  ...paperEn,
};
