import { sumKeptBytes } from '../db/media-repository.ts';
import { sumPendingBytes } from '../db/upload-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

const GIGABYTE = 1024 ** 3;
/** Files that one person may have under way at once. */
const MAX_PENDING = 500;

/** @throws ProblemError 507 when a file of this size does not fit into its brand's room, 429 when somebody has too many under way */
export async function requireBrandRoom({ db, settings }: Pick<Services, 'db' | 'settings'>, brandId: string, personId: string, bytes: number): Promise<void> {
  const pending = await sumPendingBytes(db, brandId, personId);
  if (pending.files >= MAX_PENDING) throw new ProblemError(429, 'too-many-uploads', `You have ${MAX_PENDING} files under way. Wait until some are in, or remove them.`, { retryAfterSeconds: 60 });
  const most = settings.brandGigabytes * GIGABYTE;
  if ((await sumKeptBytes(db, brandId)) + pending.bytes + bytes <= most) return;
  throw new ProblemError(507, 'brand-full', `This brand’s pictures and clips take up the ${settings.brandGigabytes} GB it has. Delete some, or ask whoever runs this Confetti for more room.`);
}
