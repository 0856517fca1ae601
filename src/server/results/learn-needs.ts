import type { AnswerOf } from '../../contract/contract.ts';
import type { getToday } from '../../contract/today-contracts.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listChannels } from '../db/brand-repository.ts';
import { listWaitingLong } from '../db/conversation-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { listBrokenLinks } from '../db/short-link-repository.ts';
import type { Services } from '../services.ts';

type Need = AnswerOf<typeof getToday>['needs'][number];

const HOUR_MS = 3_600_000;
/** People who wait are named one by one up to here; beyond, they stand in one line. */
const MAX_NAMED = 3;
const MAX_WAITING = 50;
const MAX_LINKS = 5;

/** Who has waited too long for an answer, and which short links lead nowhere. */
export async function learnNeeds({ db }: Pick<Services, 'db'>, brand: Brand, role: Role, nowMs: number): Promise<readonly Need[]> {
  const nothing = { pieceId: null, postId: null, deliveryId: null, channelIds: [] as string[], mediaId: null, atMs: null } as const;
  const { answerWithinHours } = await readLearnSettings(db, brand.id);
  const [waiting, broken, channels] = [roleMay(role, 'answer') ? await listWaitingLong(db, brand.id, nowMs - answerWithinHours * HOUR_MS, MAX_WAITING) : [], await listBrokenLinks(db, brand.id, MAX_LINKS), await listChannels(db, brand.id)];
  const named = waiting.length <= MAX_NAMED ? waiting : [];
  const nameOf = (channelId: string): string => channels.find(({ id }) => id === channelId)?.name ?? '';
  const [first] = waiting;
  return [
    ...named.map((each): Need => ({ ...nothing, key: each.id, kind: 'reply', group: 'waiting', title: `${each.authorName} waits for an answer · ${nameOf(each.channelId)}`, sentence: `“${each.snippet}” Since ${formatMoment(Number(each.waitingSinceMs ?? 0), brand.zone)}.`, channelIds: [each.channelId], atMs: Number(each.waitingSinceMs ?? 0) })),
    ...(named.length === 0 && first ? [{ ...nothing, key: 'replies', kind: 'reply' as const, group: 'waiting' as const, title: `${waiting.length}${waiting.length === MAX_WAITING ? ' or more' : ''} people wait for an answer`, sentence: `The longest is ${first.authorName}, since ${formatMoment(Number(first.waitingSinceMs ?? 0), brand.zone)}: “${first.snippet}”`, atMs: Number(first.waitingSinceMs ?? 0) }] : []),
    ...broken.map((link): Need => ({ ...nothing, key: `link ${link.code}`, kind: 'link', group: 'waiting', title: 'A short link leads nowhere', sentence: `${link.target}: ${link.problem ?? ''}`, atMs: link.problemSinceMs })),
  ];
}
