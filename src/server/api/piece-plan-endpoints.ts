import { nanoid } from 'nanoid';
import * as contracts from '../../contract/piece-plan-contracts.ts';
import { occurrencesBetween, readRule, RecurrenceError, ruleInWords, seriesMeetsClockChange } from '../../core/plan/recurrence.ts';
import { turningPicture, wordingsOf } from '../../core/plan/rotated-piece.ts';
import { distinctPosts } from '../../core/plan/rotation.ts';
import { suggestMoments as suggest } from '../../core/plan/suggest.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { worksOf } from '../results/works.ts';
import { addDays } from '../../core/time/day.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { listChannels, listSheetsOf } from '../db/brand-repository.ts';
import { findMediaByIds } from '../db/media-repository.ts';
import { listOutings } from '../db/outing-repository.ts';
import { getPiecePlan as readPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { listQueue } from '../db/queue-repository.ts';
import { insertRepeat, listOccurrences, listRepeats } from '../db/repeat-repository.ts';
import { deleteRotation, keepRotation as writeRotation, listRotations as rotationsOf, listRuns } from '../db/rotation-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { forecastFrom, lanesOf, readSources } from '../plan/brand-forecast.ts';
import { changeRepeat as change } from '../plan/change-repeat.ts';
import { makeReal } from '../plan/make-real.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { getStoredPiece } from './piece-endpoints.ts';

const DAY_MS = 86_400_000;
const NEXT_SHOWN = 6;
const YEAR_DAYS = 366;
const isCutOf = (cuts: readonly { readonly channelId: string; readonly placement: string }[]) => (cut: { readonly channelId: string; readonly placement: string }): boolean => cuts.some((each) => each.channelId === cut.channelId && each.placement === cut.placement);

const getPiecePlan = defineEndpoint({
  contract: contracts.getPiecePlan,
  may: 'see',
  async handle({ services, brand, params, nowMs }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const { db } = services;
    const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
    const [plan, queue, repeats, [rotation], runs] = await Promise.all([readPiecePlan(db, brand.id, piece.id), listQueue(db, brand.id), listRepeats(db, brand.id, piece.id), rotationsOf(db, brand.id, piece.id), listRuns(db, brand.id, addDays(today, -YEAR_DAYS))]);
    const described = await Promise.all(
      repeats.map(async (repeat) => {
        const stands = await listOccurrences(db, repeat.id);
        const next = occurrencesBetween(repeat, nowMs, nowMs + 400 * DAY_MS).slice(0, NEXT_SHOWN).map(({ key, atMs }) => ({ key, atMs, postId: stands.get(key) ?? null }));
        return { id: repeat.id, rule: repeat.rule, words: ruleInWords(repeat.rule, repeat.start), start: repeat.start, except: [...repeat.except], cuts: repeat.cuts.map((cut) => ({ ...cut })), next };
      }),
    );
    return {
      ...plan,
      labels: [...plan.labels],
      channelIds: [...new Set(piece.document.cuts.map(({ channelId }) => channelId))],
      queue: queue.filter(({ pieceId }) => pieceId === piece.id).map(({ id, channelId }) => ({ id, channelId })),
      repeats: described,
      rotation: rotation ? { settings: rotation.settings, isOn: rotation.isOn } : null,
      wordings: wordingsOf(piece.document).map((each) => ({ ...each })),
      picture: turningPicture(piece.document)?.mediaId ?? null,
      runs: runs.filter(({ pieceId }) => pieceId === piece.id).map(({ day, channelId, wording, picture, postId }) => ({ day, channelId, wording, picture, postId })),
    };
  },
});

const changePiecePlan = defineEndpoint({
  contract: contracts.changePiecePlan,
  may: 'make',
  async handle({ services, brand, params, body }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    await services.db.transaction(async (trx) => {
      const before = await readPiecePlan(trx, brand.id, piece.id);
      const given = Object.fromEntries(Object.entries(body).filter(([, value]) => value !== undefined));
      await savePiecePlan(trx, brand.id, piece.id, { ...before, ...given }, services.clock.machineNowMs());
    });
    return undefined;
  },
});

const SUGGEST_DAYS = 14;
const SLOTS_AHEAD_MS = 60 * DAY_MS;

const suggestMoments = defineEndpoint({
  contract: contracts.suggestMoments,
  may: 'see',
  async handle({ services, brand, body, nowMs }) {
    const { db } = services;
    const lanes = lanesOf(await listChannels(db, brand.id), await listSheetsOf(db, brand.id)).filter(({ id }) => body.channelIds.includes(id));
    if (lanes.length === 0) throw notFound('channel');
    const neighbours = (await listOutings(db, brand.id, { fromMs: nowMs - 2 * DAY_MS, toMs: nowMs + (SUGGEST_DAYS + 2) * DAY_MS, limit: 5_000 })).map(({ channelId, dueMs, themeId }) => ({ channelId, atMs: dueMs, themeId }));
    const { rateBase } = await readLearnSettings(db, brand.id);
    const { hours } = await worksOf(services, brand, rateBase, null, nowMs);
    const suggestions = suggest({ zone: brand.zone, nowMs, days: SUGGEST_DAYS, channels: lanes, themeId: body.themeId, neighbours, hours, count: 4 });
    const sources = await readSources(services, brand, nowMs, nowMs + SLOTS_AHEAD_MS);
    // Slots are open to a person whatever waits for them: who waits moves on to the next.
    const { fills } = forecastFrom({ ...sources, waiting: [], rotations: [] }, brand.zone, nowMs, nowMs + SLOTS_AHEAD_MS);
    const slots = new Map<string, { slotKey: string; wall: string; atMs: number; themeId: string | null; channelIds: string[] }>();
    for (const { slot, channelId } of fills) {
      if (!body.channelIds.includes(channelId) || (slot.themeId !== null && slot.themeId !== body.themeId)) continue;
      const known = slots.get(slot.key) ?? { slotKey: slot.key, wall: `${slot.day}T${slot.time}`, atMs: slot.atMs, themeId: slot.themeId, channelIds: [] };
      known.channelIds.push(channelId);
      slots.set(slot.key, known);
    }
    return { slots: [...slots.values()].slice(0, NEXT_SHOWN), suggestions: suggestions.map((each) => ({ ...each, reasons: [...each.reasons] })) };
  },
});

const startRepeat = defineEndpoint({
  contract: contracts.startRepeat,
  may: 'send',
  async handle({ services, brand, params, body, caller, nowMs }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    if (!body.cuts.every(isCutOf(piece.document.cuts))) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
    const start = body.start ?? '';
    const repeat = { id: nanoid(12), brandId: brand.id, pieceId: piece.id, rule: body.rule, start, zone: brand.zone, except: [], cuts: body.cuts.map(({ channelId, placement }) => ({ channelId, placement })), createdBy: caller.person.id };
    try {
      readRule(body.rule, start);
      const next = occurrencesBetween(repeat, nowMs, nowMs + 3 * 366 * DAY_MS).slice(0, NEXT_SHOWN).map(({ atMs }) => atMs);
      if (next.length === 0) throw new ProblemError(422, 'never-comes', 'This repeat never comes round from now on. Choose another day or another end.');
      if (body.isClockAgreed !== true && seriesMeetsClockChange(repeat)) throw new ProblemError(409, 'clock-change', `Clocks in this zone skip or repeat ${start.slice(11)} on some day of the year. There it goes out at the next time that exists, or the first time of the two. Is that right?`);
      await services.db.transaction((trx) => insertRepeat(trx, repeat, services.clock.machineNowMs()));
      await makeReal(services, brand);
      return { id: repeat.id, words: ruleInWords(body.rule, start), next };
    } catch (error) {
      if (error instanceof RecurrenceError) throw new ProblemError(422, error.code, error.message);
      throw error;
    }
  },
});

const changeRepeat = defineEndpoint({
  contract: contracts.changeRepeat,
  may: 'send',
  async handle({ services, brand, params, body, nowMs }) {
    await change(services, brand, params.repeat, { occurrence: body.occurrence ?? '', reach: body.reach, to: body.to ?? null }, nowMs);
    return { done: true };
  },
});

const keepRotation = defineEndpoint({
  contract: contracts.keepRotation,
  may: 'send',
  async handle({ services, brand, params, body, caller }) {
    const piece = await getStoredPiece(services, brand, params.piece);
    const { settings, isOn } = body;
    if (!settings.cuts.every(isCutOf(piece.document.cuts))) throw new ProblemError(422, 'unknown-cut', 'One of the chosen cuts does not belong to this piece.');
    const wordings = new Set(wordingsOf(piece.document).map(({ id }) => id));
    if (settings.wordings.some((id) => !wordings.has(id))) throw new ProblemError(422, 'unknown-wording', 'One of the chosen wordings is not the piece’s any more. Choose again.');
    const pictures = settings.pictures.filter((id) => id !== '');
    if ((await findMediaByIds(services.db, brand.id, pictures)).filter(({ recording }) => recording === null || recording.kind === 'clip').length < new Set(pictures).size) throw new ProblemError(422, 'unknown-picture', 'One of the chosen pictures is not the brand’s any more. Choose again.');
    const kept = { ...settings, cuts: settings.cuts.map((cut) => ({ ...cut })), wordings: [...settings.wordings], pictures: [...settings.pictures] };
    await writeRotation(services.db, brand.id, piece.id, { settings: kept, isOn }, caller.person.id, services.clock.machineNowMs());
    return { distinct: distinctPosts(kept) };
  },
});

const endRotation = defineEndpoint({
  contract: contracts.endRotation,
  may: 'send',
  async handle({ services, brand, params }) {
    if (!(await deleteRotation(services.db, brand.id, params.piece, services.clock.machineNowMs()))) throw notFound('rotation');
    return undefined;
  },
});

const listRotations = defineEndpoint({
  contract: contracts.listRotations,
  may: 'see',
  async handle({ services, brand, nowMs }) {
    const untilMs = nowMs + 84 * DAY_MS;
    const sources = await readSources(services, brand, nowMs, untilMs);
    const { fills } = forecastFrom(sources, brand.zone, nowMs, untilMs);
    const items = sources.rotations.map((rotation) => {
      const ran = sources.runs.filter(({ pieceId }) => pieceId === rotation.pieceId);
      const ahead = fills.filter(({ filling }) => filling.kind === 'rotation' && filling.pieceId === rotation.pieceId);
      const { pieceId, pieceName, kind, themeId, isOn, settings } = rotation;
      return { pieceId, pieceName, kind, themeId, isOn, settings, distinct: distinctPosts(settings), ran: new Set(ran.map(({ postId }) => postId)).size, lastDay: ran.at(-1)?.day ?? null, nextMs: ahead[0]?.slot.atMs ?? null, slotsAWeek: Math.round((new Set(ahead.map(({ slot }) => slot.key)).size / 12) * 10) / 10 };
    });
    return { items };
  },
});

export const piecePlanEndpoints: readonly Endpoint[] = [getPiecePlan, changePiecePlan, suggestMoments, startRepeat, changeRepeat, keepRotation, endRotation, listRotations];
