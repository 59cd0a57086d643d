import { pino } from 'pino';

/** The server's log: one JSON object a line. */
export const log = pino({ base: null, serializers: { bug: pino.stdSerializers.err } });
