/** What an account has to choose from, by field: the names of its boards, its playlists. The first is taken where nobody chooses and something is needed. */
export type ChannelOffers = Readonly<Partial<Record<string, readonly string[]>>>;
