/** Who sends what goes out of the house. */
import { connected } from '../../data';

/** Who a letter is from. */
export interface Sender {
  name: string;
  street: string;
  postcode: string;
  town: string;
  country: string;
}

const works: Sender = {
  name: 'Harrowmoor Scale Works',
  street: 'Weighhouse Lane 1',
  postcode: 'HM1 2SW',
  town: 'Harrowmoor',
  country: 'GB',
};

/** The works, or a dealer with the address that its invoices go to. */
export async function senderOf(dealer: { id: string; name: string } | null): Promise<Sender> {
  if (!dealer) return works;
  const address = await connected().records.addresses.findOne({
    where: { customerId: dealer.id },
    order: [
      ['kind', 'DESC'],
      ['position', 'ASC'],
    ],
    raw: true,
  });
  return address
    ? {
        name: dealer.name,
        street: address.street,
        postcode: address.postcode,
        town: address.town,
        country: address.country,
      }
    : { ...works, name: dealer.name };
}

/** The time zone of the house: its days begin and end by it, wherever the server stands. */
export const houseZone = 'Europe/London';
