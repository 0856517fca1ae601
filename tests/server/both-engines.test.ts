import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../demo/brands/gullwick.ts';
import { getShippedTemplate } from '../../src/core/template/shipped-templates.ts';
import { insertBrand } from '../../src/server/db/brand-repository.ts';
import { addClockOffsetMs, readClockOffsetMs } from '../../src/server/db/clock-repository.ts';
import type { Db } from '../../src/server/db/connection.ts';
import { claimJob, endAttempt, enqueueJob, getJob, pruneJobs } from '../../src/server/db/job-repository.ts';
import { deleteMedia, findMedia, insertMediaOnce, listTags, noTerms, pageMedia, updateMedia, type MediaFilter, type MediaItem } from '../../src/server/db/media-repository.ts';
import { changeRole, insertMembership, insertPerson, listMembers, removeMember } from '../../src/server/db/people-repository.ts';
import { findSession, insertSession } from '../../src/server/db/session-repository.ts';
import type { Piece } from '../../src/core/piece/piece.ts';
import { findPiece, insertPiece, pagePieces, pieceFacets, purgePieces, savePiece, shelvePiece } from '../../src/server/db/piece-repository.ts';
import { endPresence, listPresent, notePresence } from '../../src/server/db/presence-repository.ts';
import { archiveTemplate, insertTemplate, listTemplates, saveTemplate } from '../../src/server/db/template-repository.ts';
import { findUpload, insertUpload, noteImported, takeStaleUploads } from '../../src/server/db/upload-repository.ts';
import { allPieces, plainPiece } from '../fixtures/piece.ts';
import { testPicture } from '../fixtures/pictures.ts';
import { databaseEngines } from './database-engines.ts';

/** A moment of today: more than 32 bits of milliseconds. */
const NOW_MS = 1_795_000_000_000;

let db: Db;
const item = (id: string, more: Partial<MediaItem> = {}): MediaItem => ({
  id, brandId: 'b', name: `${id}.jpg`, mime: 'image/jpeg', widthPx: 40, heightPx: 30, bytes: 9, sourceHash: `source-${id}`, storedHash: `stored-${id}`, facts: testPicture().facts,
  recording: null, ownFocal: null, altText: '', terms: noTerms, tags: [], takenDay: null, sourceAddress: null, archivedMs: null, revision: 1, createdMs: NOW_MS, ...more,
});
const list = async (filter: Partial<MediaFilter> = {}): Promise<readonly string[]> =>
  (await pageMedia(db, 'b', { before: null, limit: 10, words: [], tag: null, archived: false, kind: null, ...filter })).map(({ id }) => id);

describe.each(databaseEngines)('on $name', (engine) => {
  beforeAll(() => engine.start());
  afterAll(() => engine.stop());
  beforeEach(async () => {
    db = await engine.open();
    await insertPerson(db, { id: 'wren', email: 'wren@x.example', name: 'Wren', passwordHash: 'h' }, NOW_MS);
    await insertBrand(db, { id: 'b', slug: 'gullwick', name: 'Gullwick', zone: 'Europe/London', book: gullwickBook });
    await insertMembership(db, 'wren', 'b', 'owner');
    await insertPiece(db, { id: 'p', brandId: 'b', document: plainPiece, createdBy: 'wren' }, NOW_MS);
  });
  afterEach(() => engine.discard(db));

  it('workers that claim at the same time never get the same job, and leave none behind', async () => {
    const keys = Array.from({ length: 12 }, (_, index) => `job-${index}`);
    for (const [index, key] of keys.entries()) await enqueueJob(db, { key, kind: 'work', lane: 'a', payload: {}, maxAttempts: 3, priority: index % 3 }, NOW_MS);
    const taken: string[] = [];
    const worker = async (lease: string): Promise<void> => {
      // A claim that lost its race answers nothing; a worker that finds nothing left is through.
      for (let idle = 0; idle < 20; ) {
        const job = await claimJob(db, { lease, lanes: ['a'], fullGroups: [], nowMs: NOW_MS, machineNowMs: NOW_MS, leaseMs: 60_000 });
        if (!job) {
          idle += 1;
          continue;
        }
        taken.push(job.key);
        expect(await endAttempt(db, job.id, lease, { event: 'finish', result: null }, NOW_MS)).toBe(true);
      }
    };
    await Promise.all(['w1', 'w2', 'w3', 'w4'].map(worker));
    expect(taken.toSorted()).toEqual(keys.toSorted());
    expect(await getJob(db, 'job-3')).toMatchObject({ state: 'done', attempt: 1, startedMs: NOW_MS });
    await pruneJobs(db, NOW_MS + 30 * 24 * 3_600_000);
    expect(await db('jobs')).toEqual([]);
  });

  it('media are found by beginnings of their words, by tags and by kind, page after page', async () => {
    await insertMediaOnce(db, item('kite', { name: 'Red kite.jpg', tags: ['festival', 'sky'], createdMs: NOW_MS + 1 }));
    await insertMediaOnce(db, item('keel', { altText: 'A kite over the Über-Deich', tags: ['sky'], createdMs: NOW_MS + 2 }));
    await insertMediaOnce(db, item('wind', { recording: { kind: 'sound', durationMs: 5_000, hasSound: true } as MediaItem['recording'], createdMs: NOW_MS + 3 }));
    expect((await insertMediaOnce(db, item('again', { sourceHash: 'source-kite' }))).id).toBe('kite');
    expect(await list()).toEqual(['wind', 'keel', 'kite']);
    expect(await list({ limit: 2 })).toEqual(['wind', 'keel']);
    expect(await list({ before: { ms: NOW_MS + 2, id: 'keel' } })).toEqual(['kite']);
    expect(await list({ words: ['KIT'] })).toEqual(['keel', 'kite']);
    expect(await list({ words: ['kite', 'über'] })).toEqual(['keel']);
    expect(await list({ words: ['ite'] })).toEqual([]);
    expect(await list({ tag: 'festival' })).toEqual(['kite']);
    expect(await list({ kind: 'sound' })).toEqual(['wind']);
    expect(await list({ kind: 'seen' })).toEqual(['keel', 'kite']);
    expect(await listTags(db, 'b')).toEqual([{ tag: 'sky', count: 2 }, { tag: 'festival', count: 1 }]);
    expect(await updateMedia(db, 'b', 'kite', 1, { tags: ['sky'], archivedMs: NOW_MS }, NOW_MS)).toMatchObject({ revision: 2, archivedMs: NOW_MS });
    expect(await updateMedia(db, 'b', 'kite', 1, { name: 'Late' }, NOW_MS)).toBeNull();
    expect(await list({ archived: true })).toEqual(['kite']);
    expect(await listTags(db, 'b')).toEqual([{ tag: 'sky', count: 2 }]);
    await deleteMedia(db, 'b', 'kite');
    expect(await findMedia(db, 'b', 'kite')).toBeNull();
    expect(await listTags(db, 'b')).toEqual([{ tag: 'sky', count: 1 }]);
  });

  it('pieces are searched, filtered, sorted, archived and deleted', async () => {
    const document = (title: string, caption: string): Piece => ({ ...plainPiece, title, words: { shared: { caption, altText: '' }, own: {} } });
    await insertPiece(db, { id: 'anna', brandId: 'b', document: document('Zopf am Sonntag', 'Aus dem Steinofen'), createdBy: 'wren' }, NOW_MS + 1);
    await insertPiece(db, { id: 'bert', brandId: 'b', document: document('apfelkuchen', 'Mit Zimt'), createdBy: 'wren' }, NOW_MS + 2);
    const list = async (filter: Partial<typeof allPieces>) => (await pagePieces(db, 'b', { ...allPieces, ...filter })).map(({ id }) => id).filter((id) => id !== 'p');
    expect(await list({})).toEqual(['bert', 'anna']);
    expect(await list({ sort: 'name' })).toEqual(['bert', 'anna']);
    expect(await list({ sort: 'name', after: { value: 'apfelkuchen', id: 'bert' } })).toEqual(['anna']);
    expect(await list({ words: ['STEIN'] })).toEqual(['anna']);
    expect(await list({ words: ['zopf', 'steinofen'] })).toEqual(['anna']);
    expect(await list({ words: ['ofen'] })).toEqual([]);
    expect(await list({ status: 'draft' })).toEqual(['bert', 'anna']);
    expect(await list({ status: 'scheduled' })).toEqual([]);
    expect(await list({ personId: 'nobody' })).toEqual([]);
    expect(await list({ sinceMs: NOW_MS + 2 })).toEqual(['bert']);
    expect(await list({ kind: 'video' })).toEqual([]);
    expect((await pieceFacets(db, 'b')).people).toEqual([{ id: 'wren', name: 'Wren' }]);
    expect(await savePiece(db, { id: 'anna', brandId: 'b', revision: 1 }, document('Zopf', 'Heute'), 'wren', NOW_MS + 3)).toMatchObject({ revision: 2 });
    expect(await list({ words: ['steinofen'] })).toEqual([]);
    expect(await list({ words: ['heu'] })).toEqual(['anna']);
    expect(await shelvePiece(db, 'b', 'anna', 'archived', NOW_MS)).toBe(true);
    expect([await list({}), await list({ shelf: 'archived' })]).toEqual([['bert'], ['anna']]);
    expect(await shelvePiece(db, 'b', 'anna', 'deleted', NOW_MS)).toBe(true);
    expect([await findPiece(db, 'b', 'anna'), await purgePieces(db, NOW_MS)]).toEqual([null, 0]);
    expect(await shelvePiece(db, 'b', 'anna', 'use', NOW_MS)).toBe(true);
    expect(await findPiece(db, 'b', 'anna')).toMatchObject({ document: { title: 'Zopf' } });
    await shelvePiece(db, 'b', 'anna', 'deleted', NOW_MS);
    expect(await purgePieces(db, NOW_MS + 1)).toBe(1);
    expect(await shelvePiece(db, 'b', 'anna', 'use', NOW_MS)).toBe(false);
  });

  it('moments of today come back as numbers', async () => {
    expect(await pagePieces(db, 'b', { ...allPieces, limit: 5 })).toMatchObject([{ id: 'p', updatedMs: NOW_MS, cuts: 1, scheduled: 0, sent: 0 }]);
    expect(await pagePieces(db, 'b', { ...allPieces, after: { value: NOW_MS, id: 'p' }, limit: 5 })).toEqual([]);
    await insertSession(db, { secretHash: 's', id: 'i', personId: 'wren', client: '', createdMs: NOW_MS, lastUsedMs: NOW_MS, expiresMs: NOW_MS + 5 });
    expect(await findSession(db, 's', NOW_MS, 0)).toMatchObject({ person: { id: 'wren' } });
    expect([await findSession(db, 's', NOW_MS + 6, 0), await findSession(db, 's', NOW_MS, NOW_MS)]).toEqual([null, null]);
    expect(await addClockOffsetMs(db, 9_000_000_000)).toBe(9_000_000_000);
    expect(await addClockOffsetMs(db, 1)).toBe(9_000_000_001);
    expect(await readClockOffsetMs(db)).toBe(9_000_000_001);
  });

  it('who has a piece open is one entry a person, until they leave', async () => {
    await insertPerson(db, { id: 'caspian', email: 'c@x.example', name: 'Caspian', passwordHash: 'h' }, NOW_MS);
    for (const [viewId, personId] of [['v1', 'wren'], ['v2', 'wren'], ['v3', 'caspian']] as const) await notePresence(db, { brandId: 'b', pieceId: 'p', viewId, personId, untilMs: NOW_MS + 10 }, NOW_MS);
    expect(await listPresent(db, 'p', NOW_MS)).toEqual([{ personId: 'caspian', name: 'Caspian' }, { personId: 'wren', name: 'Wren' }]);
    await endPresence(db, { brandId: 'b', pieceId: 'p', viewId: 'v3' }, NOW_MS);
    expect(await listPresent(db, 'p', NOW_MS)).toEqual([{ personId: 'wren', name: 'Wren' }]);
    expect(await listPresent(db, 'p', NOW_MS + 10)).toEqual([]);
  });

  it('uploads are kept until they are stale, templates are saved on top of what was read', async () => {
    await insertUpload(db, { id: 'u', brandId: 'b', personId: 'wren', name: 'Clip.mp4', bytes: 5_000_000_000, startedMs: NOW_MS });
    await noteImported(db, { id: 'u', brandId: 'b' }, 'm', NOW_MS);
    expect(await findUpload(db, 'b', 'wren', 'u')).toMatchObject({ bytes: 5_000_000_000, mediaId: 'm' });
    expect(await takeStaleUploads(db, NOW_MS)).toEqual([]);
    expect(await takeStaleUploads(db, NOW_MS + 1)).toEqual(['u']);
    const template = { ...getShippedTemplate('headland'), key: 'own' };
    expect([await insertTemplate(db, 'b', template, NOW_MS), await insertTemplate(db, 'b', template, NOW_MS)]).toEqual([true, false]);
    expect([(await saveTemplate(db, 'b', 1, template, NOW_MS))?.revision, await saveTemplate(db, 'b', 1, template, NOW_MS)]).toEqual([2, null]);
    await archiveTemplate(db, 'b', 'own', NOW_MS);
    expect((await listTemplates(db, 'b')).filter(({ isOwn }) => isOwn)).toEqual([{ key: 'own', name: template.name, purpose: template.purpose, kind: 'graphic', family: null, isOwn: true, takesPictures: true, archived: true, wants: [], scheme: null }]);
  });

  it('a brand keeps its last owner', async () => {
    expect([await changeRole(db, 'b', 'wren', 'writer'), await removeMember(db, 'b', 'wren')]).toEqual([false, false]);
    await insertPerson(db, { id: 'caspian', email: 'c@x.example', name: 'Caspian', passwordHash: 'h' }, NOW_MS);
    await insertMembership(db, 'caspian', 'b', 'owner');
    expect(await changeRole(db, 'b', 'wren', 'writer')).toBe(true);
    expect((await listMembers(db, 'b')).map(({ id, role }) => [id, role])).toEqual([['wren', 'writer'], ['caspian', 'owner']]);
  });
});
