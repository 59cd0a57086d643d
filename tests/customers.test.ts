/** A customer nobody knows yet, on the phone: made, quoted, and delivered elsewhere. */
import { expect, test } from '@playwright/test';
import { atDesk, people, quoteOf, ready } from './people';

test('a new customer is made while the quote is opened, and gets another address for delivery', async ({
  page,
}) => {
  await atDesk(page, people.engineer);
  const name = `Peat Hill Roads ${String(Date.now()).slice(-6)}`;
  await page.getByRole('button', { name: 'New quote' }).click();
  const dialog = page.getByRole('dialog', { name: 'New quote' });
  await dialog.getByRole('combobox', { name: 'Customer' }).fill(name);
  await expect(dialog.getByText(`No customer has "${name}"`)).toBeVisible();
  await dialog.getByRole('button', { name: 'New customer' }).click();
  await expect(dialog.getByLabel('Name of the customer')).toHaveValue(name);
  await dialog.getByLabel('Price list').selectOption({ label: 'United Kingdom 2026, GBP' });
  await dialog.getByLabel('Region').selectOption('uk');
  await dialog.getByLabel('Contact', { exact: true }).fill('Orla Peat');
  await dialog.getByLabel('E-mail of the contact').fill('orla');
  await dialog.getByLabel('Paid within, days').fill('60');
  await dialog.getByLabel('Street').fill('Moss Road 4');
  await dialog.getByLabel('Postcode').fill('PH1 2AB');
  await dialog.getByLabel('Country').fill('GB');
  await dialog.getByRole('button', { name: 'Make the customer' }).click();
  await expect(dialog.getByText('Type the town.')).toBeVisible();
  await dialog.getByLabel('Town').fill('Peathill');
  await dialog.getByLabel('E-mail of the contact').fill('o.peat@peathill.example');
  await dialog.getByRole('button', { name: 'Make the customer' }).click();
  await page.waitForURL(/\/quotes\//);
  await ready(page);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(name);
  await expect(page.getByText('paid within 60 days')).toBeVisible();

  await page.getByRole('button', { name: 'Delivery: another address' }).click();
  const other = page.getByRole('dialog', { name: 'Another delivery address' });
  await other.getByRole('button', { name: 'Take it' }).click();
  await expect(other.getByText('Choose an address.')).toBeVisible();
  await other.getByLabel('A new address').check();
  await other.getByLabel('Street').fill('Quarry Gate 9');
  await other.getByLabel('Postcode').fill('PH9 9ZZ');
  await other.getByLabel('Town').fill('Upper Peathill');
  await other.getByLabel('Country').fill('GB');
  await other.getByRole('button', { name: 'Take it' }).click();
  await expect(other).toBeHidden();
  await expect(page.getByText('Quarry Gate 9')).toBeVisible();
  await page.getByRole('button', { name: 'Contact: another person' }).click();
  const whom = page.getByRole('dialog', { name: 'Another contact' });
  await expect(whom.getByLabel(/Orla Peat/)).toBeVisible();
  await whom.getByLabel('Somebody new').check();
  await whom.getByLabel('Name', { exact: true }).fill('Rory Cairn');
  await whom.getByLabel('E-mail', { exact: true }).fill('rory');
  await whom.getByRole('button', { name: 'Take it' }).click();
  await expect(whom.getByText('This is not an e-mail address.')).toBeVisible();
  await whom.getByLabel('E-mail', { exact: true }).fill('r.cairn@peathill.example');
  await whom.getByLabel('What they see to').fill('Purchasing');
  await whom.getByRole('button', { name: 'Take it' }).click();
  await expect(whom).toBeHidden();
  await expect(page.getByText('r.cairn@peathill.example')).toBeVisible();
  const id = page.url().split('/').pop() ?? '';
  expect((await quoteOf(page, id)).customer.addresses.map(({ street }) => street)).toEqual([
    'Moss Road 4',
    'Quarry Gate 9',
  ]);
});
