import type { Settings } from '../settings.ts';

/** A plain letter. */
export interface Letter {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly attachments?: readonly { readonly filename: string; readonly content: Buffer; readonly contentType: string }[];
}

const WITHIN_MS = 10_000;

/**
 * Sends a letter by the installation's SMTP server.
 * @throws Error when there is none, or it does not take the letter
 */
export async function sendLetter({ smtp, mailFrom }: Pick<Settings, 'smtp' | 'mailFrom'>, { to, subject, text, attachments = [] }: Letter): Promise<void> {
  if (smtp === null) throw new Error('This installation sends no mail: CONFETTI_SMTP is not set');
  const { createTransport } = await import('nodemailer');
  const transport = createTransport({ url: smtp, connectionTimeout: WITHIN_MS, greetingTimeout: WITHIN_MS, socketTimeout: WITHIN_MS });
  try {
    await transport.sendMail({ from: mailFrom, to, subject, text, attachments: [...attachments], disableFileAccess: true, disableUrlAccess: true });
  } finally {
    transport.close();
  }
}
