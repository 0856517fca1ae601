import { useQueries, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { listDeliveries } from '../../contract/send-contracts.ts';
import { checkSpelling, readLinkCard } from '../../contract/word-contracts.ts';
import type { BrandBook } from '../../core/brand/brand-book.ts';
import type { careFindings, textsToSpell } from '../../core/care/care-findings.ts';
import type { Piece } from '../../core/piece/piece.ts';
import type { CutToCheck, Finding } from '../../core/preflight/finding.ts';
import { LINK_PATTERN } from '../../core/words/count-characters.ts';
import { isWebAddress } from '../../core/words/fields.ts';
import { call } from '../ui/call.ts';
import { useSettled } from '../ui/use-settled.ts';

interface CareProps {
  readonly brand: { readonly slug: string; readonly zone: string };
  readonly pieceId: string;
  readonly piece: Piece;
  readonly book: BrandBook;
  readonly cuts: readonly CutToCheck[];
  readonly nowMs: number;
}

interface CareCode {
  readonly careFindings: typeof careFindings;
  readonly textsToSpell: typeof textsToSpell;
}

/** A pause in typing after which spelling is looked at. */
const PAUSE_MS = 900;
const MAX_LINKS = 3;
const NONE: readonly Finding[] = [];

/** What a careful reader would say of the words. Dictionaries and calendars come after the page: nobody waits for them. */
export function useCare({ brand, pieceId, piece, book, cuts, nowMs }: CareProps): readonly Finding[] {
  const [code, setCode] = useState<CareCode | null>(null);
  useEffect(() => {
    void import('../../core/care/care-findings.ts').then(({ careFindings: find, textsToSpell: texts }) => setCode({ careFindings: find, textsToSpell: texts }));
  }, []);
  const settled = useSettled(piece, PAUSE_MS);
  const texts = useMemo(() => (code ? code.textsToSpell(settled).slice(0, 100) : []), [code, settled]);
  const spelling = useQuery({ queryKey: ['spelling', brand.slug, texts], queryFn: () => call(checkSpelling, { params: { brand: brand.slug }, body: { texts: [...texts] } }), enabled: texts.length > 0, staleTime: Infinity, retry: false });
  const planned = useQuery({ queryKey: ['planned', brand.slug, pieceId], queryFn: () => call(listDeliveries, { params: { brand: brand.slug }, query: { piece: pieceId, state: 'scheduled', limit: 20 } }), staleTime: 60_000, retry: false });
  const addresses = useMemo(() => {
    const { words } = settled;
    const rows = [words.shared, ...Object.values(words.own)];
    return [...new Set(rows.flatMap((row) => [row.link?.trim() ?? '', ...(row.caption?.match(LINK_PATTERN) ?? [])]))].filter((address) => isWebAddress(address) && !address.includes('{')).slice(0, MAX_LINKS);
  }, [settled]);
  const cards = useQueries({ queries: addresses.map((address) => ({ queryKey: ['link-card', brand.slug, address], queryFn: () => call(readLinkCard, { params: { brand: brand.slug }, query: { address } }), staleTime: 600_000, retry: false })) });
  const dead = addresses.flatMap((address, index) => {
    const problem = cards[index]?.data?.problem ?? '';
    // A site that is not public may well open for its readers, and reserved names open for nobody.
    const isReserved = /\.(?:example|test|invalid|localhost)$/u.test(new URL(address).hostname);
    return /answered (?:404|410)/u.test(problem) || (/There is no /u.test(problem) && !isReserved) ? [{ address, problem }] : [];
  });
  const deadKey = JSON.stringify(dead);
  const mistakes = spelling.data?.mistakes;
  const plannedMs = planned.data?.items.reduce<number | null>((first, { dueMs }) => (first === null || dueMs < first ? dueMs : first), null) ?? null;
  const shown = useDeferredValue(settled);
  return useMemo(
    () => (code ? code.careFindings({ piece: shown, book, cuts, zone: brand.zone, nowMs, plannedMs, mistakes: mistakes ?? [], deadLinks: JSON.parse(deadKey) as typeof dead }) : NONE),
    [code, shown, book, cuts, brand.zone, nowMs, plannedMs, mistakes, deadKey],
  );
}
