import { z } from 'zod'
import { rights, roles } from '#core'
import * as wire from '#wire'
import type { Account } from '../db/people.ts'
import { AppError } from '../errors/app-error.ts'
import { route, type Route } from './route.ts'
import type { Services } from './routes.ts'

const login = z.string().trim().min(3).max(80)
const password = z.string().min(10).max(200)
const name = z.string().trim().min(1).max(80)
const token = z.string().min(1).max(100)
const personParams = z.object({ person: z.string().regex(/^[0-9a-f-]{36}$/, 'must be a person’s id') })
const shortId = z.string().regex(/^[0-9a-f]{24}$/, 'must be an id of 24 characters')

/** Routes by which people come in and go: signing in and out, links that work once, one's own password and sessions. */
export function sessionRoutes({ accounts, store }: Services): Route[] {
  return [
    route({
      method: 'post',
      path: '/api/session',
      summary: 'Sign in',
      role: 'public',
      light: true,
      body: z.object({ login: z.string().min(1).max(80), password: z.string().min(1).max(200) }),
      answer: wire.accountWire,
      handle: async ({ body, from, setSession }) => {
        const session = await accounts.signIn(body.login, body.password, from)
        setSession(session)
        return shown(session.account)
      },
    }),
    route({
      method: 'get',
      path: '/api/session',
      summary: 'Who is signed in',
      role: 'viewer',
      answer: wire.accountWire,
      handle: async ({ who }) => shown(who),
    }),
    route({
      method: 'delete',
      path: '/api/session',
      summary: 'Sign out',
      role: 'public',
      light: true,
      answer: wire.okAnswer,
      handle: async ({ token, setSession }) => {
        if (token) await accounts.signOut(token)
        setSession(null)
        return { ok: true }
      },
    }),
    route({
      method: 'get',
      path: '/api/setup',
      summary: 'Whether this Kapelle still waits for its first firm',
      role: 'public',
      answer: wire.setupAnswer,
      handle: async () => ({ needed: await accounts.isEmpty() }),
    }),
    route({
      method: 'post',
      path: '/api/setup',
      summary: 'Make the first firm and its owner, with the token of the set-up link',
      role: 'public',
      guarded: true,
      body: z.object({ token, firm: z.string().trim().min(1).max(120), name, login, password }),
      answer: wire.accountWire,
      handle: async ({ body, from, setSession }) => {
        const made = await accounts.setUp(body)
        setSession(await accounts.signIn(body.login, body.password, from))
        return shown(made)
      },
    }),
    route({
      method: 'post',
      path: '/api/link',
      summary: 'What a link that works once is for; looking does not use it',
      role: 'public',
      guarded: true,
      body: z.object({ token }),
      answer: wire.linkAnswer,
      handle: async ({ body }) => {
        const link = await accounts.linkOf(body.token)
        if (!link)
          throw new AppError('NOT_FOUND', 'This link is not valid any more. Ask the owner for a new one.')
        return link
      },
    }),
    route({
      method: 'post',
      path: '/api/link/invite',
      summary: 'Come into a firm by an invitation',
      role: 'public',
      guarded: true,
      body: z.object({ token, name, login, password }),
      answer: wire.accountWire,
      handle: async ({ body, from, setSession }) => {
        const made = await accounts.accept(body)
        setSession(await accounts.signIn(body.login, body.password, from))
        return shown(made)
      },
    }),
    route({
      method: 'post',
      path: '/api/link/password',
      summary: 'Choose a new password by a link; every session of the person ends',
      role: 'public',
      guarded: true,
      body: z.object({ token, password }),
      answer: wire.accountWire,
      handle: async ({ body, from, setSession }) => {
        const signIn = await accounts.newPassword(body.token, body.password)
        const session = await accounts.signIn(signIn, body.password, from)
        setSession(session)
        return shown(session.account)
      },
    }),
    route({
      method: 'put',
      path: '/api/password',
      summary: 'Change one’s own password; one’s other sessions end',
      role: 'viewer',
      body: z.object({ old: z.string().min(1).max(200), password }),
      answer: wire.okAnswer,
      handle: async ({ who, token, body }) => {
        await accounts.changePassword(who, token, body.old, body.password)
        return { ok: true }
      },
    }),
    route({
      method: 'get',
      path: '/api/sessions',
      summary: 'One’s own sessions',
      role: 'viewer',
      answer: wire.sessionsAnswer,
      handle: async ({ who, token }) => ({
        sessions: await store.people.sessionsOf(who.id, token, accounts.now()),
      }),
    }),
    route({
      method: 'delete',
      path: '/api/sessions/:session',
      summary: 'End one of one’s own sessions, or with `others` all but this one',
      role: 'viewer',
      light: true,
      params: z.object({ session: z.union([shortId, z.literal('others')]) }),
      answer: wire.sessionsAnswer,
      handle: async ({ who, token, params }) => {
        await store.people.endSessions(
          who.id,
          params.session === 'others' ? { except: token } : { id: params.session },
        )
        return { sessions: await store.people.sessionsOf(who.id, token, accounts.now()) }
      },
    }),
  ]
}

/** Routes by which an owner keeps the people of the firm. */
export function peopleRoutes({ accounts, store }: Services): Route[] {
  const people = async (who: Account) => ({
    people: await store.people.peopleOf(who.firmId),
    invitations: (await store.links.invitations(who.firmId, accounts.now())).map((link) => ({
      id: link.id,
      name: link.name,
      role: link.role,
      expiresAt: link.expiresAt.toISOString(),
    })),
  })
  const theirs = async (who: Account, id: string): Promise<Account> => {
    const person = await store.people.ofFirm(who.firmId, id)
    if (!person) throw new AppError('NOT_FOUND', 'There is no such person in this firm.')
    return person
  }
  const kept = (done: boolean): void => {
    if (!done)
      throw new AppError(
        'CONFLICT',
        'The firm needs an owner: make somebody else one first. Nothing was changed.',
      )
  }
  return [
    route({
      method: 'get',
      path: '/api/people',
      summary: 'The people of the firm, and invitations nobody used yet',
      role: 'owner',
      answer: wire.peopleAnswer,
      handle: async ({ who }) => people(who),
    }),
    route({
      method: 'post',
      path: '/api/invitations',
      summary: 'Invite somebody by a link that works once within three days',
      role: 'owner',
      body: z.object({ name: z.string().trim().max(80).default(''), role: z.enum(roles) }),
      answer: wire.newLink,
      handle: async ({ who, body }) => ({ token: await accounts.invite(who.firmId, body.role, body.name) }),
    }),
    route({
      method: 'delete',
      path: '/api/invitations/:invitation',
      summary: 'Take an invitation back',
      role: 'owner',
      light: true,
      params: z.object({ invitation: shortId }),
      answer: wire.peopleAnswer,
      handle: async ({ who, params }) => {
        if (!(await store.links.withdraw(who.firmId, params.invitation)))
          throw new AppError('NOT_FOUND', 'There is no such invitation in this firm: it may have been used.')
        return people(who)
      },
    }),
    route({
      method: 'put',
      path: '/api/people/:person',
      summary: 'Change a person’s role and rights',
      role: 'owner',
      params: personParams,
      body: z.object({ role: z.enum(roles), rights: z.array(z.enum(rights)).max(rights.length) }),
      answer: wire.peopleAnswer,
      handle: async ({ who, params, body }) => {
        await theirs(who, params.person)
        kept(await store.people.setRole(who.firmId, params.person, body.role, body.rights))
        return people(who)
      },
    }),
    route({
      method: 'delete',
      path: '/api/people/:person',
      summary: 'Take a person out of the firm; their name stays in the journals',
      role: 'owner',
      light: true,
      params: personParams,
      answer: wire.peopleAnswer,
      handle: async ({ who, params }) => {
        await theirs(who, params.person)
        kept(await store.people.remove(who.firmId, params.person, accounts.now()))
        return people(who)
      },
    }),
    route({
      method: 'delete',
      path: '/api/people/:person/sessions',
      summary: 'End every session of a person',
      role: 'owner',
      light: true,
      params: personParams,
      answer: wire.endedAnswer,
      handle: async ({ who, token, params }) => {
        await theirs(who, params.person)
        const except = params.person === who.id ? token : null
        return { ended: await store.people.endSessions(params.person, { except }) }
      },
    }),
    route({
      method: 'post',
      path: '/api/people/:person/password-link',
      summary: 'A link by which a person chooses a new password; it works once within a day',
      role: 'owner',
      params: personParams,
      answer: wire.newLink,
      handle: async ({ who, params }) => ({ token: await accounts.passwordLink(who.firmId, params.person) }),
    }),
  ]
}

function shown({ id, name, login, role, rights: given, firmName, firmId }: Account): wire.AccountWire {
  return { id, name, login, role, rights: [...given], firm: firmName, firmId }
}
