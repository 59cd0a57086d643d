/** Exchange: models and their answers as text, for integrators and for checking. */
export { runCommand } from './command';
