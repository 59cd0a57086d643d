import { connected } from '../data';

export { isUnavailable } from '../data';

export async function ready(): Promise<boolean> {
  try {
    await connected().sequelize.query('select 1');
    return true;
  } catch {
    return false;
  }
}
