import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** A letter that has come in. */
export interface Mail {
  readonly to: string;
  readonly from: string;
  readonly subject: string;
  readonly text: string;
  /** Names and sizes of what came along. */
  readonly attachments: readonly { readonly name: string; readonly bytes: Uint8Array; readonly mime: string }[];
  readonly atMs: number;
}

const MAX_KEPT = 200;
const MAX_BYTES = 16 * 1024 * 1024;

/** A mail server of the demo: it takes every letter, delivers none, and shows them on a page. */
export class Mailbox {
  readonly #mails: Mail[] = [];
  readonly #server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: MAX_BYTES,
    onData: (stream, _session, done) => {
      void import('mailparser')
        .then(({ simpleParser }) => simpleParser(stream))
        .then(
          ({ to, from, subject, text, attachments }) => {
            this.#mails.unshift({ to: to?.text ?? '', from: from?.text ?? '', subject: subject ?? '', text: text ?? '', attachments: attachments.map(({ filename, content, contentType }) => ({ name: filename ?? 'file', bytes: new Uint8Array(content), mime: contentType })), atMs: Date.now() });
            this.#mails.splice(MAX_KEPT);
            done();
          },
          (error: unknown) => done(error instanceof Error ? error : new Error('The letter could not be read')),
        );
    },
  });

  /** The latest first. */
  get mails(): readonly Mail[] {
    return this.#mails;
  }

  /** Listens on a loopback port, 0 for a free one; answers which. */
  async listen(port: number): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.#server.on('error', reject);
      this.#server.listen(port, '127.0.0.1', resolve);
    });
    return (this.#server.server.address() as AddressInfo).port;
  }

  close(): Promise<void> {
    return new Promise((resolve) => this.#server.close(() => resolve()));
  }
}
