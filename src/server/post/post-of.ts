import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { findPost, type Post } from '../db/post-repository.ts';
import { notFound } from '../errors.ts';

/** @throws ProblemError 404 when the brand has no such post */
export async function postOf(db: Db, brand: Pick<Brand, 'id'>, id: string): Promise<Post> {
  const post = await findPost(db, brand.id, id);
  if (!post) throw notFound('post');
  return post;
}
