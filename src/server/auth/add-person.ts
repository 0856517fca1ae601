import { createInterface } from 'node:readline/promises';
import { parseArgs } from 'node:util';
import { nanoid } from 'nanoid';
import { IANAZone } from 'luxon';
import { string } from 'yup';
import { roles, type Role } from '../../core/access/access.ts';
import { MIN_PASSWORD } from '../../contract/account-contracts.ts';
import { keyFrom } from '../../core/brand/exchange/draft-book.ts';
import { plainBook } from '../../core/brand/plain-book.ts';
import { findBrandBySlug, freeSlug, insertBrand } from '../db/brand-repository.ts';
import { findPersonByEmail, insertMembership, insertPerson, letBeginBrands, listMembers } from '../db/people-repository.ts';
import { setCodeSecret } from '../db/sign-in-repository.ts';
import { keepFilesPrivate } from '../secrets/keep-files-private.ts';
import { closeServices, openServices, type Services } from '../services.ts';
import { readSettings } from '../settings.ts';
import { makePasswordLink } from './one-time-links.ts';
import { hashPassword } from './secrets.ts';

const USAGE = `Usage:
  npm run person -- --email ADDRESS --name NAME [--brand NAME --zone IANA/ZONE] [--join SLUG --role ${roles.join('|')}] [--may-begin-brands yes|no]
  npm run person -- --email ADDRESS --new-password [--without-second-step]`;

const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** What a person at the terminal got wrong, in a sentence. */
class UsageError extends Error {}

function readArguments() {
  try {
    return parseArgs({
      options: {
        email: { type: 'string' },
        name: { type: 'string' },
        brand: { type: 'string' },
        zone: { type: 'string', default: 'UTC' },
        join: { type: 'string' },
        role: { type: 'string', default: 'owner' },
        'may-begin-brands': { type: 'string' },
        'new-password': { type: 'boolean', default: false },
        'without-second-step': { type: 'boolean', default: false },
      },
    }).values;
  } catch (error) {
    throw new UsageError(`${error instanceof Error ? (error.message.split('. ')[0] ?? '') : String(error)}.\n${USAGE}`);
  }
}

type Values = ReturnType<typeof readArguments>;

function check(values: Values): { readonly email: string; readonly role: Role } {
  const { email, zone } = values;
  if (!email) throw new UsageError(USAGE);
  if (!string().email().max(200).isValidSync(email)) throw new UsageError(`'${email}' is not an email address.`);
  const role = roles.find((each) => each === values.role);
  if (!role) throw new UsageError(`There is no role '${values.role}'. There are: ${roles.join(', ')}.`);
  if (!IANAZone.isValidZone(zone)) throw new UsageError(`There is no time zone '${zone}'. Zones are written like Europe/London.`);
  const may = values['may-begin-brands'];
  if (may !== undefined && may !== 'yes' && may !== 'no') throw new UsageError('--may-begin-brands takes yes or no.');
  return { email, role };
}

async function readPassword(): Promise<string> {
  const given = process.env['CONFETTI_PASSWORD'];
  const terminal = given === undefined ? createInterface({ input: process.stdin, output: process.stdout }) : null;
  const password = given ?? (await terminal?.question('Password (shown as you type): ')) ?? '';
  terminal?.close();
  if (password.length < MIN_PASSWORD) throw new UsageError(`A password has at least ${MIN_PASSWORD} characters.`);
  return password;
}

/** The command line's way to people: the first of an installation, a new password, who may begin brands. */
async function run(services: Services, values: Values): Promise<void> {
  const { db } = services;
  const { email, role } = check(values);
  const known = await findPersonByEmail(db, email);
  const nowMs = services.clock.machineNowMs();
  if (values['new-password']) {
    if (!known) throw new UsageError(`Nobody signs in as ${email}.`);
    if (values['without-second-step']) await setCodeSecret(db, known.id, null, []);
    const { path } = await makePasswordLink(db, known.id, nowMs);
    say(`${known.name} sets a new password with this link, once, within a day: ${services.settings.origin ?? 'http://HOST:PORT'}${path}`);
    return;
  }
  if (!known && !values.name) throw new UsageError(`Nobody signs in as ${email} yet. Give a --name as well.`);
  const joined = values.join === undefined ? null : await findBrandBySlug(db, values.join);
  if (values.join !== undefined && !joined) throw new UsageError(`There is no brand '${values.join}'.`);
  if (known && joined && (await listMembers(db, joined.id)).some(({ id }) => id === known.id)) throw new UsageError(`${known.name} is in ${joined.name} already.`);
  const person = known ?? { id: nanoid(12), email, name: values.name ?? '' };
  const passwordHash = known ? null : await hashPassword(await readPassword());
  const done: string[] = [];
  await db.transaction(async (trx) => {
    if (passwordHash !== null) await insertPerson(trx, { ...person, passwordHash, mayBeginBrands: values.brand !== undefined }, nowMs);
    done.push(known ? `${known.name} (${email}) is known; the password stays as it is.` : `${person.name} can sign in as ${email}.`);
    if (values['may-begin-brands'] !== undefined) {
      await letBeginBrands(trx, person.id, values['may-begin-brands'] === 'yes');
      done.push(`May begin brands: ${values['may-begin-brands']}.`);
    }
    if (values.brand !== undefined) {
      const id = nanoid(12);
      const slug = await freeSlug(trx, keyFrom(values.brand, 'brand'));
      await insertBrand(trx, { id, slug, name: values.brand, zone: values.zone, book: plainBook });
      await insertMembership(trx, person.id, id, 'owner');
      done.push(`Owner of ${values.brand} (${slug}).`);
    }
    if (joined) {
      await insertMembership(trx, person.id, joined.id, role);
      done.push(`Now ${role} of ${joined.name}.`);
    }
  });
  say(done.join(' '));
}

async function main(): Promise<number> {
  keepFilesPrivate();
  try {
    const values = readArguments();
    check(values);
    const services = await openServices(readSettings(process.env), 1);
    try {
      await run(services, values);
      return 0;
    } finally {
      await closeServices(services);
    }
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    say(error.message);
    return 2;
  }
}

process.exitCode = await main();
