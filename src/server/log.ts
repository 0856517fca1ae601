import pino, { type Logger } from 'pino';

/**
 * The log of one process. Errors are given as `err`, or as `error` where somebody forgets: both are written with message, stack
 * and cause.
 */
export function openLog(level: string, destination?: pino.DestinationStream): Logger {
  const serializers = { err: pino.stdSerializers.errWithCause, error: pino.stdSerializers.errWithCause };
  return pino({ level, serializers, redact: ['token', 'password', '*.token', '*.password'] }, ...(destination ? [destination] : []));
}
