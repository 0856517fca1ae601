import { createHash } from 'node:crypto';
import { Hono, type Context } from 'hono';
import { html } from 'hono/html';
import { accountKinds } from './account-kinds.ts';
import { page } from './pages.ts';
import type { NetworkRules } from './rules.ts';
import type { Consent, StandinStore } from './store.ts';

/** What a program asks a person to agree to. */
interface Request {
  readonly client_id: string;
  readonly redirect_uri: string;
  readonly state: string;
  readonly code_challenge: string;
  /** IndieAuth: the site that is meant. */
  readonly me: string;
}

const HANDLE = /^@[a-z0-9.]{2,40}$/;

/**
 * How people let a program post for them: a consent page, codes, and accesses that end. Authorization code with PKCE
 * (RFC 6749 section 4.1, RFC 7636); where the network is a site of one's own, as IndieAuth has it.
 * @see https://indieauth.spec.indieweb.org/
 */
export function consentApi(rules: NetworkRules, store: StandinStore, publicOrigin: string, nowMs: () => number): Hono {
  const api = new Hono();
  const fault = (context: Context, error: string, error_description: string, status: 400 | 401 = 400): Response => context.json({ error, error_description }, status);

  api.get('/consent', (context) => {
    const asked = readRequest((name) => context.req.query(name));
    if (typeof asked === 'string') return context.html(page(rules.name, rules.tint, html`<main><h1>This request cannot be read</h1><p>${asked}</p></main>`), 400);
    return context.html(consentPage(rules, store, asked));
  });

  api.post('/consent', async (context) => {
    const form = await context.req.parseBody({ all: true });
    const asked = readRequest((name) => (typeof form[name] === 'string' ? form[name] : undefined));
    if (typeof asked === 'string') return fault(context, 'invalid_request', asked);
    const back = new URL(asked.redirect_uri);
    back.searchParams.set('state', asked.state);
    const handles = [form['handle'] ?? []].flat().filter((each): each is string => typeof each === 'string' && store.listAccounts(rules.key).some(({ handle }) => handle === each));
    const fresh = String(form['new-handle'] ?? '').trim().toLowerCase();
    if (form['answer'] !== 'allow' || (handles.length === 0 && !HANDLE.test(fresh))) {
      back.searchParams.set('error', 'access_denied');
      return context.redirect(back.href);
    }
    if (HANDLE.test(fresh) && !store.listAccounts(rules.key).some(({ handle }) => handle === fresh)) store.openAccount({ network: rules.key, handle: fresh, name: String(form['new-name'] ?? '').trim().slice(0, 80) || fresh.slice(1), kind: kindOf(rules, String(form['new-kind'] ?? '')) });
    const chosen = HANDLE.test(fresh) ? [...new Set([...handles, fresh])] : handles;
    back.searchParams.set('code', store.keepConsent({ network: rules.key, handles: chosen, clientId: asked.client_id, redirectUri: asked.redirect_uri, challenge: asked.code_challenge }, nowMs()));
    return context.redirect(back.href);
  });

  api.post('/token', async (context) => {
    const form = (await context.req.parseBody()) as Readonly<Record<string, unknown>>;
    const said = (name: string): string => String(form[name] ?? '');
    if (said('grant_type') === 'refresh_token') {
      const renewed = store.renewAccess(rules.key, said('refresh_token'), nowMs());
      return renewed ? context.json({ token_type: 'Bearer', ...renewed }) : fault(context, 'invalid_grant', 'This access has ended. Ask the person again.');
    }
    if (said('grant_type') !== 'authorization_code') return fault(context, 'unsupported_grant_type', 'Codes and renewals are granted here.');
    const consent = store.takeConsent(said('code'), nowMs());
    const refused = consent === null || consent.network !== rules.key ? 'This code is not known, was used, or is too old.' : refusalOf(consent, { clientId: said('client_id'), redirectUri: said('redirect_uri'), verifier: said('code_verifier') });
    if (consent === null || refused !== null) return fault(context, 'invalid_grant', refused ?? '');
    const accounts = store.listAccounts(rules.key).filter(({ handle }) => consent.handles.includes(handle));
    if (rules.manner === 'micropub') {
      const [site] = accounts;
      if (!site) return fault(context, 'invalid_grant', 'There is no such site any more.');
      return context.json({ token_type: 'Bearer', scope: 'create media', me: `${publicOrigin}/${rules.key}/${site.handle}`, ...store.grantAccess(rules.key, site.handle, nowMs()) });
    }
    return context.json({ token_type: 'Bearer', accounts: accounts.map(({ handle, name, kind }) => ({ handle, name, kind, ...store.grantAccess(rules.key, handle, nowMs()) })) });
  });

  api.post('/revoke', async (context) => {
    store.revokeAccess(rules.key, String((await context.req.parseBody())['token'] ?? ''));
    return context.body(null, 200);
  });
  return api;
}

/** Where a site says that programs ask for access (IndieAuth section 4.1). */
export const indieAuthMetadata = (base: string) => ({ issuer: `${base}/`, authorization_endpoint: `${base}/consent`, token_endpoint: `${base}/token`, revocation_endpoint: `${base}/revoke`, code_challenge_methods_supported: ['S256'], scopes_supported: ['create', 'media'] });

function readRequest(read: (name: string) => string | undefined): Request | string {
  const [client_id = '', redirect_uri = '', state = '', code_challenge = '', me = ''] = ['client_id', 'redirect_uri', 'state', 'code_challenge', 'me'].map(read);
  if (read('response_type') !== 'code') return 'Only codes are given here.';
  if (!URL.canParse(redirect_uri) || !/^https?:$/.test(new URL(redirect_uri).protocol)) return 'There is no address to go back to.';
  if (!URL.canParse(client_id) || new URL(client_id).host !== new URL(redirect_uri).host) return 'The address to go back to is not the program’s.';
  if (state === '') return 'The request has no state.';
  if (read('code_challenge_method') !== 'S256' || !/^[\w-]{43}$/.test(code_challenge)) return 'The request has no challenge of SHA-256.';
  return { client_id, redirect_uri, state, code_challenge, me };
}

function refusalOf(consent: Consent, { clientId, redirectUri, verifier }: { readonly clientId: string; readonly redirectUri: string; readonly verifier: string }): string | null {
  if (consent.clientId !== clientId || consent.redirectUri !== redirectUri) return 'This code was given to another program.';
  return createHash('sha256').update(verifier).digest('base64url') === consent.challenge ? null : 'The verifier does not fit the challenge.';
}

const kindOf = (rules: NetworkRules, wanted: string): string => (accountKinds[rules.key] ?? []).find(({ key }) => key === wanted)?.key ?? accountKinds[rules.key]?.[0]?.key ?? 'business';

function consentPage(rules: NetworkRules, store: StandinStore, asked: Request) {
  const accounts = store.listAccounts(rules.key);
  const kinds = accountKinds[rules.key] ?? [];
  const isMeant = (handle: string): boolean => asked.me === '' || asked.me.endsWith(`/${handle}`);
  return page(
    rules.name,
    rules.tint,
    html`<main>
      <h1>${new URL(asked.client_id).host} asks to post for you</h1>
      <p>It may publish, change and delete posts, and read figures, comments and messages, until you end this in your settings.</p>
      <form method="post" style="display:block">
        ${(['client_id', 'redirect_uri', 'state', 'code_challenge', 'me'] as const).map((name) => html`<input type="hidden" name="${name}" value="${asked[name]}" />`)}
        <input type="hidden" name="response_type" value="code" /><input type="hidden" name="code_challenge_method" value="S256" />
        <fieldset>
          <legend>Your accounts</legend>
          ${accounts.length === 0 ? html`<p class="small">You have none yet. Open one below.</p>` : ''}
          ${accounts.map(({ handle, name, kind }) => html`<p><label><input type="checkbox" name="handle" value="${handle}" ${isMeant(handle) ? 'checked' : ''} /> ${name} ${handle} <span class="small">${kinds.find(({ key }) => key === kind)?.name ?? kind}</span></label></p>`)}
        </fieldset>
        <fieldset>
          <legend>Open another account</legend>
          <p><label>Handle <input name="new-handle" placeholder="@name" pattern="@[a-z0-9.]{2,40}" /></label> <label>Name <input name="new-name" maxlength="80" /></label>
            <label>Kind <select name="new-kind">${kinds.map(({ key, name }) => html`<option value="${key}">${name}</option>`)}</select></label></p>
        </fieldset>
        <p><button name="answer" value="allow">Allow</button> <button name="answer" value="refuse">Refuse</button></p>
      </form>
    </main>`,
  );
}
