/** The Outbox: the simulated mail server that ships with the application. */
export { isDown, keptMessage, ourServer, setDown } from './server';
export { readMessage } from './read';
