declare module 'smtp-server' {
  import type { Readable } from 'node:stream';
  interface Options {
    readonly authOptional: boolean;
    readonly disabledCommands: readonly string[];
    readonly size: number;
    readonly onData: (stream: Readable, session: unknown, done: (error?: Error) => void) => void;
  }
  export class SMTPServer {
    constructor(options: Options);
    readonly server: import('node:net').Server;
    listen(port: number, host: string, done: () => void): void;
    close(done: () => void): void;
    on(event: 'error', listener: (error: Error) => void): void;
  }
}

declare module 'mailparser' {
  interface Parsed {
    readonly subject?: string;
    readonly text?: string;
    readonly date?: Date;
    readonly to?: { readonly text: string };
    readonly from?: { readonly text: string };
    readonly attachments: readonly { readonly filename?: string; readonly content: Uint8Array; readonly contentType: string }[];
  }
  export function simpleParser(source: import('node:stream').Readable): Promise<Parsed>;
}
