import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { keepLeader, listExperiments, tryVersion } from '../../../contract/comparison-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { MAX_LOSS } from '../../../core/results/experiment.ts';
import { listRotations } from '../../../contract/piece-plan-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { SelectField } from '../../ui/SelectField.tsx';
import { toast } from '../../ui/toast.tsx';
import { countOf, rateOf } from '../figure-words.ts';
import type { ResultsContext } from './results-context.ts';

type Experiment = AnswerOf<typeof listExperiments>['experiments'][number];

/** Rotations that try several wordings or pictures: which leads, by how much, and how sure that is. */
export default function Experiments({ context }: { readonly context: ResultsContext }) {
  const { brand } = context;
  const experiments = useQuery({ queryKey: ['results', brand.slug, 'experiments'], queryFn: () => call(listExperiments, { params: { brand: brand.slug } }) });
  if (experiments.isError) return <p className="text-sm text-coral-ink">{experiments.error.message}</p>;
  if (!experiments.data) return <p className="text-sm text-quiet">Loading…</p>;
  const list = experiments.data.experiments;
  if (list.length === 0)
    return (
      <div className="max-w-xl text-sm text-quiet">
        <p>Nothing is tried now. A piece in rotation with several wordings or pictures is an experiment: its versions take turns, and here stands which does better.</p>
        {roleMay(brand.role, 'send') && (
          <div className="mt-3">
            <NewTrial brand={brand.slug} taken={new Set()} />
          </div>
        )}
        <p className="mt-3">
          <a href={`/b/${brand.slug}/plan/rotation`} className={buttonClasses('primary')}>
            Open Rotation
          </a>
        </p>
      </div>
    );
  return (
    <div className="grid max-w-4xl grid-cols-[minmax(0,1fr)] gap-8">
      {roleMay(brand.role, 'send') && <NewTrial brand={brand.slug} taken={new Set(list.flatMap(({ of, arms }) => (of === 'version' ? arms.map(({ id }) => id) : [])))} />}
      {list.map((each) => (
        <ExperimentTable key={`${each.pieceId}${each.of}`} experiment={each} context={context} />
      ))}
      <p className="max-w-2xl text-xs text-quiet">Compared three days after sending, with every channel brought to the same level. It is decided once keeping the leader loses less than {Math.round(MAX_LOSS * 100)}% of its rate on average; one may look as often as one likes.</p>
    </div>
  );
}

/** Begins another version of a piece in rotation and opens it, to be changed. */
function TryVersion({ pieceId, brand, label }: { readonly pieceId: string; readonly brand: string; readonly label: string }) {
  const begin = useMutation({
    mutationFn: () => call(tryVersion, { params: { brand, piece: pieceId }, body: {} }),
    onSuccess: ({ pieceId: made }) => location.assign(`/b/${brand}/make/pieces/${made}`),
    onError: (error) => toast('problem', error.message),
  });
  return (
    <Button size="small" disabled={begin.isPending} onClick={() => begin.mutate()}>
      {label}
    </Button>
  );
}

/** Pieces in rotation of which another version can be tried in the same slots. */
function NewTrial({ brand, taken }: { readonly brand: string; readonly taken: ReadonlySet<string> }) {
  const rotations = useQuery({ queryKey: ['plan', brand, 'rotations'], queryFn: () => call(listRotations, { params: { brand } }) });
  const [chosen, setChosen] = useState('');
  const free = (rotations.data?.items ?? []).filter(({ pieceId, isOn }) => isOn && !taken.has(pieceId));
  if (free.length === 0) return null;
  return (
    <section aria-label="Try another version" className="flex flex-wrap items-end gap-2 text-sm">
      <SelectField label="Try another version of" value={chosen} onChange={setChosen} options={[['', 'Choose a piece in rotation'], ...free.map(({ pieceId, pieceName }) => [pieceId, pieceName] as const)]} />
      {chosen !== '' && <TryVersion pieceId={chosen} brand={brand} label="Make the version" />}
      <p className="w-full text-xs text-quiet">A copy takes turns with it in the same slots. Change in it what you want to try.</p>
    </section>
  );
}

function ExperimentTable({ experiment, context }: { readonly experiment: Experiment; readonly context: ResultsContext }) {
  const { brand } = context;
  const client = useQueryClient();
  const { pieceId, pieceName, of, arms, leader, isDecided, postsWanted } = experiment;
  const keep = useMutation({
    mutationFn: (arm: string) => call(keepLeader, { params: { brand: brand.slug, piece: pieceId }, body: { of, arm } }),
    onSuccess: async () => {
      toast('done', of === 'version' ? 'The leader stays in rotation; the other versions rest' : 'The rotation goes on with the leader');
      await client.invalidateQueries({ queryKey: ['results', brand.slug, 'experiments'] });
    },
    onError: (error) => toast('problem', error.message),
  });
  const best = arms.find(({ id }) => id === leader);
  return (
    <section aria-label={`${pieceName}, ${of}s`}>
      <h2 className="text-base font-semibold">
        <a href={`/b/${brand.slug}/make/pieces/${pieceId}`} className="hover:underline">
          {pieceName}
        </a>{' '}
        <span className="font-normal text-quiet">{arms.length} {of}s</span>
      </h2>
      <p className="mb-2 flex flex-wrap items-center gap-3 text-sm">
        {best === undefined && <span className="text-quiet">Too little has gone out to compare: each version needs a post that is three days old.</span>}
        {best !== undefined && (
          <span>
            <span className={isDecided ? 'font-semibold text-mint-ink' : 'font-semibold'}>{isDecided ? 'Decided' : 'Not decided yet'}:</span> “{best.name}” leads with a chance of {Math.round(best.leads * 100)}%. Keeping it would lose {(best.loss * 100).toFixed(1)}% on average{!isDecided && postsWanted !== null ? `; about ${postsWanted} more ${postsWanted === 1 ? 'post' : 'posts'} would tell` : ''}.
          </span>
        )}
        {of === 'version' && roleMay(brand.role, 'send') && <TryVersion pieceId={pieceId} brand={brand.slug} label="Add a version" />}
        {best !== undefined && roleMay(brand.role, 'send') && (
          <Button size="small" look={isDecided ? 'primary' : 'plain'} disabled={keep.isPending} onClick={() => keep.mutate(best.id)}>
            Keep the leader
          </Button>
        )}
      </p>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[36rem] border-collapse text-sm tabular-nums">
          <caption className="sr-only">Versions of {pieceName}</caption>
          <thead>
            <tr className="text-xs text-quiet">
              {['Version', 'Posts', 'Seen', 'Engaged', 'Rate', '90% interval', 'Leads'].map((head, index) => (
                <th key={head} scope="col" className={`border-b border-line py-1 font-medium ${index === 0 ? 'text-left' : 'text-right'}`}>
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {arms.map((arm) => (
              <tr key={arm.id} className="border-b border-line">
                <th scope="row" className={`max-w-80 truncate py-1.5 text-left ${arm.id === leader ? 'font-semibold' : 'font-normal'}`}>
                  {arm.name}
                </th>
                <td className="text-right">{arm.posts}</td>
                <td className="text-right">{countOf(arm.seen)}</td>
                <td className="text-right">{countOf(arm.engaged)}</td>
                <td className="text-right font-semibold">{arm.seen > 0 ? rateOf(arm.rate) : '—'}</td>
                <td className="text-right text-quiet">{arm.seen > 0 ? `${rateOf(arm.low)} to ${rateOf(arm.high)}` : '—'}</td>
                <td className="text-right">{arm.seen > 0 ? `${Math.round(arm.leads * 100)}%` : '—'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
