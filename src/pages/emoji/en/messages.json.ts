import messages from 'emojibase-data/en/messages.json';

export const prerender = true;

/** The emoji picker's own copy of its data: nothing is fetched from elsewhere. */
export const GET = (): Response => Response.json(messages);
