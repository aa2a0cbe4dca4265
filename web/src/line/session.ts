import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import {
  Catalogue,
  defaultHouseRules,
  hasRight,
  offeredTo,
  readKept,
  type AccountWire,
  type CatalogueAct,
  type CatalogueAnswer,
  type HouseRules,
  type LeafletWire,
  type Right,
} from '#core'
import { api, ApiError } from './api.ts'

/** Who is signed in. */
export type Person = AccountWire

/** Who is signed in, and the firm's catalogue. */
export const useSession = defineStore('session', () => {
  const person = ref<Person | null>(null)
  const catalogue = shallowRef<Catalogue | null>(null)
  /** What was said of its entries as a whole. */
  const acts = shallowRef<readonly CatalogueAct[]>([])
  /** The makers' leaflets of its entries and drafts, without their content. */
  const leaflets = shallowRef<readonly LeafletWire[]>([])
  let asked = false

  /** Asks the server once who is signed in; null for nobody. */
  async function load(): Promise<Person | null> {
    if (asked) return person.value
    try {
      person.value = await api<Person>('GET', '/api/session')
    } catch (error) {
      if (!(error instanceof ApiError) || error.status !== 401) throw error
    }
    asked = true
    return person.value
  }

  async function signIn(login: string, password: string): Promise<void> {
    person.value = await api<Person>('POST', '/api/session', { login, password })
    asked = true
  }

  /** Comes in by a link that works once: sets up the first firm, joins one, or chooses a new password. */
  async function comeIn(path: string, input: Readonly<Record<string, string>>): Promise<void> {
    person.value = await api<Person>('POST', path, input)
    asked = true
  }

  async function signOut(): Promise<void> {
    await api('DELETE', '/api/session')
    person.value = null
    catalogue.value = null
    acts.value = []
    leaflets.value = []
    houseRules.value = defaultHouseRules
    houseRulesRevision.value = 0
  }

  /** How the catalogue stood on the server when it was asked for. */
  let state = ''
  async function fetchCatalogue(): Promise<Catalogue> {
    const answer = await api<CatalogueAnswer>('GET', '/api/catalogue')
    acts.value = answer.acts
    leaflets.value = answer.leaflets
    state = answer.state
    catalogue.value = new Catalogue(answer.entries.map(readKept))
    return catalogue.value
  }

  /** Every entry of the firm in its last version, however it stands; loaded once. */
  async function loadCatalogue(): Promise<Catalogue> {
    return catalogue.value ?? fetchCatalogue()
  }

  /** What a job is offered of it: a real one nothing that is for practice only. */
  function offered(job: { readonly practice: boolean }): Catalogue {
    return offeredTo(catalogue.value ?? new Catalogue([]), acts.value, job)
  }

  const houseRules = shallowRef<HouseRules>(defaultHouseRules)
  /** Counts the changes of the house rules; what a change is made from. */
  const houseRulesRevision = ref(0)

  /** The firm's house rules; without the server those known last hold. */
  async function loadHouseRules(): Promise<void> {
    const answer = await api<{ rules: HouseRules; revision: number }>('GET', '/api/house-rules').catch(
      () => null,
    )
    if (!answer || answer.revision === houseRulesRevision.value) return
    houseRules.value = answer.rules
    houseRulesRevision.value = answer.revision
  }

  /** Asks for all of it again, after something came in; without the line what was known stays in sight. */
  async function reloadCatalogue(): Promise<void> {
    await fetchCatalogue()
  }

  /** Takes in what others did to the catalogue meanwhile; where it was never asked for, or the line is away, nothing is done. */
  async function catalogueNews(): Promise<void> {
    if (!catalogue.value || !person.value) return
    const now = await api<{ state: string }>('GET', '/api/catalogue/state').catch(() => null)
    if (now && now.state !== state && catalogue.value) await fetchCatalogue().catch(() => null)
  }

  /** A leaflet that was attached here. */
  function noteLeaflet(leaflet: LeafletWire): void {
    leaflets.value = [...leaflets.value.filter(({ id }) => id !== leaflet.id), leaflet]
  }

  /** A leaflet that was taken away. */
  function forgetLeaflet(gone: string): void {
    leaflets.value = leaflets.value.filter(({ id }) => id !== gone)
  }

  /** Whether the person has one of the owner's rights. */
  function may(right: Right): boolean {
    return person.value !== null && hasRight(person.value, right)
  }

  return {
    person,
    catalogue,
    acts,
    leaflets,
    noteLeaflet,
    forgetLeaflet,
    houseRules,
    houseRulesRevision,
    load,
    signIn,
    comeIn,
    may,
    signOut,
    loadCatalogue,
    offered,
    reloadCatalogue,
    catalogueNews,
    loadHouseRules,
  }
})
