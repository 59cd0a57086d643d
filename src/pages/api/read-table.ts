import { readTable } from '../../services/line-table';
import { taking } from './_answer';

/** Part numbers and quantities of a CSV or XLSX file, as a list to look at; nothing is kept. */
export const POST = taking(5 * 1024 * 1024, (_actor, bytes) => readTable(bytes));
