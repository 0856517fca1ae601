import { createInterface } from 'node:readline/promises';
import { parseArgs } from 'node:util';
import { nanoid } from 'nanoid';
import { roles, type Role } from '../../core/access/access.ts';
import { findPersonByEmail, insertMembership, insertPerson } from '../db/people-repository.ts';
import { insertBrand } from '../db/brand-repository.ts';
import { plainBook } from '../../core/brand/plain-book.ts';
import { closeServices, openServices } from '../services.ts';
import { readSettings } from '../settings.ts';
import { hashPassword } from './secrets.ts';

const MIN_PASSWORD = 10;

/** The command line's way to the first person and the first brand of an installation. */
const { values } = parseArgs({
  options: {
    email: { type: 'string' },
    name: { type: 'string' },
    brand: { type: 'string', default: '' },
    zone: { type: 'string', default: 'UTC' },
    role: { type: 'string', default: 'owner' },
  },
});
const say = (text: string): void => void process.stdout.write(`${text}\n`);

async function add(): Promise<number> {
  const { email, name, brand, zone } = values;
  const role = roles.find((each): each is Role => each === values.role);
  if (!email || !name || !role) {
    say(`Usage: npm run person -- --email ADDRESS --name NAME [--role ${roles.join('|')}] [--brand NAME --zone IANA/ZONE]`);
    return 2;
  }
  const terminal = createInterface({ input: process.stdin, output: process.stdout });
  const password = process.env['CONFETTI_PASSWORD'] ?? (await terminal.question('Password (shown as you type): '));
  terminal.close();
  if (password.length < MIN_PASSWORD) {
    say(`A password has at least ${MIN_PASSWORD} characters.`);
    return 1;
  }
  const services = await openServices(readSettings(process.env), 1);
  try {
    const known = await findPersonByEmail(services.db, email);
    const person = known ?? { id: nanoid(12), email, name };
    if (!known) await insertPerson(services.db, { ...person, passwordHash: await hashPassword(password) }, Date.now());
    if (brand) {
      const id = nanoid(12);
      await insertBrand(services.db, { id, slug: brand.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^[^a-z]+|-+$/g, ''), name: brand, zone, book: plainBook });
      await insertMembership(services.db, person.id, id, role);
    }
    say(`${name} can sign in as ${email}${brand ? `, ${role} of ${brand}` : ''}.`);
    return 0;
  } finally {
    await closeServices(services);
  }
}

process.exitCode = await add();
