import type { BrandBook } from '../../core/brand/brand-book.ts';
import { upgradeBrandBook } from '../../core/brand/read-brand-book.ts';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { documentsOf, type Pin } from '../../core/post/pin.ts';
import type { PinnedPicture, Snapshot } from '../../core/post/snapshot.ts';
import type { Template } from '../../core/template/template.ts';
import type { Db } from '../db/connection.ts';
import { getDocument, getDocuments, keepDocument, linkDocuments } from '../db/document-repository.ts';

/** The name of a pin, and that of the piece in it. */
export interface Pinned {
  readonly pin: string;
  readonly piece: string;
}

/** Keeps all that a snapshot is made of, each document once, and answers the pin that names them. */
export async function pinSnapshot(db: Db, snapshot: Snapshot, nowMs: number): Promise<Pinned> {
  const sheets: Record<string, string> = {};
  for (const sheet of snapshot.sheets) sheets[sheet.key] = await keepDocument(db, 'sheet', sheet, nowMs);
  const pictures: string[] = [];
  for (const picture of snapshot.pictures) pictures.push(await keepDocument(db, 'picture', picture, nowMs));
  const pin: Pin = {
    version: 1,
    piece: await keepDocument(db, 'piece', snapshot.piece, nowMs),
    template: await keepDocument(db, 'template', snapshot.template, nowMs),
    book: await keepDocument(db, 'book', snapshot.book, nowMs),
    sheets,
    pictures,
  };
  const hash = await keepDocument(db, 'pin', pin, nowMs);
  await linkDocuments(db, hash, documentsOf(pin));
  return { pin: hash, piece: pin.piece };
}

/** What a pin names, with documents of older versions brought up to date. @throws RangeError when there is no such pin */
export async function readPin(db: Db, hash: string): Promise<Snapshot> {
  const pin = (await getDocument(db, hash)) as Pin;
  const documents = await getDocuments(db, documentsOf(pin));
  const read = <Kind>(name: string): Kind => documents.get(name) as Kind;
  return {
    piece: read<Piece>(pin.piece),
    template: read<Template>(pin.template),
    book: upgradeBrandBook(read<BrandBook>(pin.book)),
    sheets: Object.values(pin.sheets).map((name) => read<NetworkSheet>(name)),
    pictures: pin.pictures.map((name) => read<PinnedPicture>(name)),
  };
}
