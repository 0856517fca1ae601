import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { AnswerOf } from '../../contract/contract.ts';
import { dropPackage, getPackage, importPackage, sendPackagePart, startPackage } from '../../contract/exchange-contracts.ts';
import { ApiProblem, call, sendFile } from '../ui/call.ts';

export type PackageState = AnswerOf<typeof getPackage>;

/** Parts are large enough for a fast line, and small enough that a break costs little. */
const PART_BYTES = 4 * 1024 * 1024;
const ASK_EVERY_MS = 700;

const isGoing = (work: PackageState['look']): boolean => work !== null && (work.state === 'waiting' || work.state === 'running');

/** The package of a page is in its address: after a reload it is still there. */
function noteInAddress(id: string | null): void {
  const address = new URL(location.href);
  if (id === null) address.searchParams.delete('package');
  else address.searchParams.set('package', id);
  history.replaceState(null, '', address);
}

/** Uploads a package in parts, then follows its check and its import. A broken upload can resume. */
export function usePackage(known: string | null) {
  const client = useQueryClient();
  const [id, setId] = useState(known);
  const [sending, setSending] = useState<{ readonly share: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const file = useRef<File | null>(null);
  const dropped = useRef(false);
  const query = useQuery({
    queryKey: ['package', id],
    queryFn: () => call(getPackage, { params: { package: id ?? '' } }),
    enabled: id !== null && sending === null,
    retry: (count, error) => count < 5 && !(error instanceof ApiProblem && error.status === 404),
    refetchInterval: ({ state }) => (state.data && (isGoing(state.data.look) || isGoing(state.data.import)) ? ASK_EVERY_MS : false),
  });
  const keep = (state: PackageState): void => {
    client.setQueryData(['package', state.id], state);
    setId(state.id);
    noteInAddress(state.id);
  };
  const send = async (chosen: File, from: string | null): Promise<void> => {
    file.current = chosen;
    dropped.current = false;
    setProblem(null);
    setSending({ share: 0 });
    try {
      let state = from === null ? await call(startPackage, { body: { name: chosen.name.slice(0, 200), bytes: chosen.size } }) : await call(getPackage, { params: { package: from } });
      keep(state);
      for (let at = state.received; at < chosen.size && !dropped.current; at = state.received) {
        setSending({ share: at / chosen.size });
        state = await sendFile(sendPackagePart, { package: state.id }, { at }, chosen.slice(at, at + PART_BYTES));
      }
      if (!dropped.current) keep(state);
      setSending(null);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
      setSending((now) => (error instanceof ApiProblem && error.status !== 0 ? null : now));
    }
  };
  const start = useMutation({ mutationFn: () => call(importPackage, { params: { package: id ?? '' }, body: {} }), onSuccess: keep, onError: (error) => setProblem(error.message) });
  const drop = (): void => {
    dropped.current = true;
    if (id !== null) call(dropPackage, { params: { package: id } }).catch(() => undefined);
    setId(null);
    setSending(null);
    setProblem(null);
    noteInAddress(null);
  };
  const state = id === null ? null : (query.data ?? null);
  const isGone = query.error instanceof ApiProblem && query.error.status === 404;
  return {
    state: isGone ? null : state,
    isSending: sending !== null,
    share: sending?.share ?? (state ? state.received / state.bytes : 0),
    problem: isGone ? 'This package is here no longer. Choose it again.' : problem,
    send: (chosen: File) => void send(chosen, null),
    /** Resumes an upload that broke, with the file of this page or, after a reload, with the same one chosen again. */
    resume: (chosen: File | null = file.current) => {
      if (!chosen) return;
      if (state && chosen.size !== state.bytes) setProblem('This is another file. Choose the one that you began with, or cancel.');
      else void send(chosen, id);
    },
    hasFile: file.current !== null,
    start: () => start.mutate(),
    drop,
  };
}
