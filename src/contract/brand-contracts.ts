import { array, boolean, number, object, string } from 'yup';
import type { BrandBook, BrandMark } from '../core/brand/brand-book.ts';
import type { ChannelOffers } from '../core/network/channel-offers.ts';
import type { NetworkSheet } from '../core/network/network-sheet.ts';
import { languages, type Language } from '../core/words/language.ts';
import { roles, type Role } from '../core/access/access.ts';
import { brandParams } from './brand-params.ts';
import { contract, documentOf } from './contract.ts';
import { mediaItemSchema } from './media-contracts.ts';

export const channelSchema = object({
  id: string().required(),
  name: string().required(),
  handle: string().required(),
  network: string().required(),
  /** What kind of account it is, by the key that its network sheet has for it. */
  kind: string().defined(),
  state: string<'connected' | 'paused' | 'ended'>().oneOf(['connected', 'paused', 'ended']).required(),
  /** What the account has to choose from, by field: boards, playlists. */
  offers: documentOf<ChannelOffers>('Names by field'),
});

export const getBrand = contract({
  method: 'GET',
  path: '/api/brands/{brand}',
  summary: 'A brand with its book, its channels and the sheets of their networks',
  params: brandParams,
  answer: object({
    slug: string().required(),
    name: string().required(),
    zone: string().required(),
    revision: number().required(),
    book: documentOf<BrandBook>('The brand book'),
    channels: array(channelSchema.required()).required(),
    sheets: array(documentOf<NetworkSheet>('A network sheet')).required(),
    /** The pictures that marks are made of. */
    markPictures: array(mediaItemSchema.required()).required(),
  }),
});

export const changeBook = contract({
  method: 'POST',
  path: '/api/brands/{brand}/book',
  summary: 'Put a changed brand book in the place of a given revision; scheduled posts keep the book they were made with',
  params: brandParams,
  body: object({ revision: number().integer().required(), book: documentOf<BrandBook>('The brand book') }).noUnknown(),
  answer: object({ revision: number().required(), book: documentOf<BrandBook>('The brand book') }),
});

export const addTypeface = contract({
  method: 'POST',
  path: '/api/brands/{brand}/typefaces',
  summary: 'Import a TTF, OTF or WOFF2 file; it is used once the book names it. The body is the file',
  params: brandParams,
  query: object({ name: string().max(200).required() }),
  body: 'bytes',
  answer: object({ key: string().required(), family: string().required(), weight: number().required(), hash: string().required() }),
  status: 201,
});

export const getTypefaceFile = contract({
  method: 'GET',
  path: '/api/brands/{brand}/typefaces/{hash}',
  summary: 'A typeface file of the brand',
  params: brandParams.shape({ hash: string().matches(/^[0-9a-f]{64}$/).required() }),
  answer: 'font',
});

export const readMark = contract({
  method: 'POST',
  path: '/api/brands/{brand}/marks',
  summary: 'Read a mark out of an SVG or PNG file; it is used once the book names it. The body is the file',
  params: brandParams,
  query: object({ name: string().max(200).required() }),
  body: 'bytes',
  answer: object({ mark: documentOf<BrandMark>('A mark of a brand book'), notes: array(string().required()).required(), isPart: boolean().required(), picture: mediaItemSchema.nullable().defined() }),
});

export const exportForms = ['tokens', 'css', 'palette'] as const;
export type ExportForm = (typeof exportForms)[number];

export const exportBook = contract({
  method: 'GET',
  path: '/api/brands/{brand}/book/{form}',
  summary: 'The brand book as design tokens JSON, CSS custom properties or a GIMP palette',
  params: brandParams.shape({ form: string<ExportForm>().oneOf([...exportForms]).required() }),
  answer: 'text',
});

const hex = () => string().matches(/^#[0-9a-fA-F]{6}$/).required();

export const readBrandSource = contract({
  method: 'POST',
  path: '/api/brand-sources',
  summary: 'What a web page (by address), saved HTML and CSS, design tokens or a palette say of a brand, to pick from',
  body: object({
    address: string().trim().max(2000),
    files: array(object({ name: string().max(200).required(), text: string().max(2_000_000).defined() }).noUnknown().required()).max(20),
  }).noUnknown(),
  answer: object({
    title: string().defined(),
    /** What the page is written in, where that is a language whose rules are known. */
    language: string<Language>().oneOf([...languages]).nullable().defined(),
    description: string().defined(),
    site: string().defined(),
    /** The heaviest first; `share` is null where the source says nothing of weight. */
    colours: array(object({ name: string().required(), hex: hex(), share: number().nullable().defined() }).required()).required(),
    /** Families of the source with the typeface of the shelf that is the same or stands in. */
    families: array(object({ family: string().required(), forHeadings: boolean().required(), exact: boolean().required(), displayFont: string().required(), textFont: string().required() }).required()).required(),
    marks: array(documentOf<BrandMark>('A mark of a brand book')).required(),
    /** The whole book, where the source is one. */
    book: documentOf<BrandBook>('The brand book').nullable().defined(),
    notes: array(string().required()).required(),
  }),
});

const brandName = () => string().trim().min(2, 'A brand needs a name').max(60).required('A brand needs a name');
const accountHandle = () => string().matches(/^@[a-z0-9.]{2,40}$/, 'A handle is @ and small letters, digits or dots').required();

export const changeBrand = contract({
  method: 'PATCH',
  path: '/api/brands/{brand}',
  summary: 'Give a brand another name or another time zone; its address stays, and what is scheduled keeps its moment, or with `keep` its wall time',
  params: brandParams,
  body: object({ name: brandName(), zone: string().max(60).required('Say which zone the brand’s clock shows'), keep: string<'wall' | 'moment'>().oneOf(['wall', 'moment']) }).noUnknown(),
  answer: object({ name: string().required(), zone: string().required() }),
});

export const createBrand = contract({
  method: 'POST',
  path: '/api/brands',
  summary: 'Begin a brand; whoever does is its owner',
  body: object({
    name: brandName(),
    zone: string().max(60).required('Say which zone the brand’s clock shows'),
    handle: accountHandle(),
    book: documentOf<BrandBook>('The brand book'),
    /** Keys of stand-in networks to open an account on. */
    networks: array(string().max(40).required()).max(20).required(),
  }).noUnknown(),
  answer: object({ slug: string().required() }),
  status: 201,
});

export const listStandinNetworks = contract({
  method: 'GET',
  path: '/api/standin-networks',
  summary: 'Stand-in networks that a new brand can have accounts on',
  answer: object({ networks: array(object({ key: string().required(), name: string().required(), placements: number().required() }).required()).required() }),
});

const member = object({ id: string().required(), name: string().required(), email: string().required(), role: string<Role>().oneOf([...roles]).required() });
const memberParams = brandParams.shape({ person: string().max(40).required() });
const role = () => string<Role>().oneOf([...roles], 'There is no such role').required();

export const listMembers = contract({ method: 'GET', path: '/api/brands/{brand}/people', summary: 'Who is in the brand, and as what', params: brandParams, answer: object({ people: array(member.required()).required() }) });

const invitation = object({ id: string().required(), email: string().defined(), role: string<Role>().oneOf([...roles]).required(), expiresMs: number().required() });

export const listInvitations = contract({ method: 'GET', path: '/api/brands/{brand}/invitations', summary: 'Invitations that nobody has accepted yet', params: brandParams, answer: object({ invitations: array(invitation.required()).required() }) });

export const invite = contract({
  method: 'POST',
  path: '/api/brands/{brand}/invitations',
  summary: 'Make a one-time link into the brand; the answer is the only time it is shown',
  params: brandParams,
  body: object({ email: string().trim().email('That is not an email address').max(200).required('Type whom it is for'), role: role() }).noUnknown(),
  answer: object({ invitation: invitation.required(), path: string().required() }),
  status: 201,
});

export const endInvitation = contract({ method: 'DELETE', path: '/api/brands/{brand}/invitations/{invitation}', summary: 'End an invitation before somebody accepts it', params: brandParams.shape({ invitation: string().max(40).required() }) });

export const changeMember = contract({ method: 'PATCH', path: '/api/brands/{brand}/people/{person}', summary: 'Give somebody another role', params: memberParams, body: object({ role: role() }).noUnknown(), answer: member });

export const removeMember = contract({ method: 'DELETE', path: '/api/brands/{brand}/people/{person}', summary: 'Take somebody out of the brand', params: memberParams });
