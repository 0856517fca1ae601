import * as contracts from '../../contract/comparison-contracts.ts';
import { listSheetsOf } from '../db/brand-repository.ts';
import { readLearnSettings } from '../db/learn-settings-repository.ts';
import { keepOther, listOthersOf, removeOther as remove } from '../db/others-repository.ts';
import { keepRotation, listRotations } from '../db/rotation-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { experimentsOf } from '../results/experiments.ts';
import { beginVersion, keepVersion } from '../results/versions.ts';
import { habitsOf, lookAt, ownPostsAWeek, publicPost } from '../results/others.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';
import { noteActOf } from './note-act.ts';

const MAX_OTHERS = 30;

const listExperiments = defineEndpoint({
  contract: contracts.listExperiments,
  may: 'see',
  async handle({ services, brand, nowMs }) {
    const { rateBase } = await readLearnSettings(services.db, brand.id);
    return { experiments: await experimentsOf(services, brand, rateBase, nowMs) };
  },
});

const keepLeader = defineEndpoint({
  contract: contracts.keepLeader,
  may: 'send',
  async handle(context) {
    const { services, brand, params, body, caller } = context;
    if (body.of === 'version') {
      const name = await keepVersion(services, brand, params.piece, body.arm, caller.person.id);
      await noteActOf(context, 'settings', params.piece, `Ended the experiment of “${name}”: one version goes on`);
      return undefined;
    }
    const [rotation] = await listRotations(services.db, brand.id, params.piece);
    if (!rotation) throw notFound('rotation');
    const key = body.of === 'wording' ? ('wordings' as const) : ('pictures' as const);
    if (!rotation.settings[key].includes(body.arm)) throw new ProblemError(422, 'unknown-version', 'The rotation does not have this version any more.');
    await keepRotation(services.db, brand.id, params.piece, { settings: { ...rotation.settings, [key]: [body.arm] }, isOn: rotation.isOn }, caller.person.id, services.clock.machineNowMs());
    await noteActOf(context, 'settings', params.piece, `Ended the experiment of “${rotation.pieceName}”: one ${body.of} goes on`);
    return undefined;
  },
});

const tryVersion = defineEndpoint({
  contract: contracts.tryVersion,
  may: 'send',
  async handle(context) {
    const { services, brand, params, caller, nowMs } = context;
    const { pieceId, name } = await beginVersion(services, brand, params.piece, caller.person.id, nowMs);
    await noteActOf(context, 'settings', pieceId, `Tries another version of “${name}”`);
    return { pieceId };
  },
});

const listOthers = defineEndpoint({
  contract: contracts.listOthers,
  may: 'see',
  async handle({ services, brand, nowMs }) {
    const others = await Promise.all(
      (await listOthersOf(services.db, brand.id)).map(async ({ network, handle, name }) => {
        const nothing = { network, handle, name, followers: null, postsAWeek: null, ownPostsAWeek: await ownPostsAWeek(services, brand, network, nowMs), kinds: [], tags: [], best: [] };
        try {
          const account = await lookAt(services, brand, network, (view, signal) => view.account(handle, signal));
          return account === null ? { ...nothing, problem: 'There is nobody of that name there any more.' } : { ...nothing, ...habitsOf(account), name: account.name, followers: account.followers, problem: null };
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          return { ...nothing, problem: error.sentence };
        }
      }),
    );
    return { others, networks: (await listSheetsOf(services.db, brand.id)).map(({ key, name }) => ({ key, name })) };
  },
});

const atHandle = (handle: string): string => (handle.startsWith('@') ? handle : `@${handle}`);

const addOther = defineEndpoint({
  contract: contracts.addOther,
  may: 'make',
  async handle({ services, brand, body }) {
    if ((await listOthersOf(services.db, brand.id)).length >= MAX_OTHERS) throw new ProblemError(422, 'too-many', `At most ${MAX_OTHERS} accounts are looked at. Remove one first.`);
    const handle = atHandle(body.handle);
    const account = await lookAt(services, brand, body.network, (view, signal) => view.account(handle, signal));
    if (account === null) throw new ProblemError(422, 'nobody', `There is nobody called ${handle} there. Check the spelling.`);
    await keepOther(services.db, brand.id, { network: body.network, handle, name: account.name });
    return undefined;
  },
});

const removeOther = defineEndpoint({
  contract: contracts.removeOther,
  may: 'make',
  async handle({ services, brand, body }) {
    if (!(await remove(services.db, brand.id, { network: body.network, handle: atHandle(body.handle) }))) throw notFound('account');
    return undefined;
  },
});

const searchOthers = defineEndpoint({
  contract: contracts.searchOthers,
  may: 'see',
  handle: async ({ services, brand, query }) => ({ posts: (await lookAt(services, brand, query.network, (view, signal) => view.search(query.words, signal))).map(publicPost) }),
});

export const comparisonEndpoints: readonly Endpoint[] = [listExperiments, keepLeader, tryVersion, listOthers, addOther, removeOther, searchOthers];
