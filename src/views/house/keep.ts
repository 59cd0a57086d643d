import type { HouseView } from '../../contract';
import type { Answer } from '../api';

/** Sends a part; tells whether it is kept. */
export type Keep = (sent: Promise<Answer<HouseView>>) => Promise<Answer<HouseView>>;
