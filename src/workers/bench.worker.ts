/**
 * The Bench's computation, off the page's thread. A page has two of them: one for what a person waits for,
 * and one for what comes after it, so that this never waits for that.
 */
import { expose } from 'comlink';
import { BenchComputation } from './bench/computation';

expose(new BenchComputation());
