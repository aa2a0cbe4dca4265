import { screenOf } from '../../panel/compiled.ts'
import { held, type Input } from '../../panel/state.ts'
import { alikeKeys } from '../at-panel/alike.ts'
import { InstallerAtPanel } from './installer-at-panel.ts'
import { anyAct, wholeAnswers } from './whole-answers.ts'

/** Somebody who tries every key of every display, to where least was tried. */
export class ExploringInstaller extends InstallerAtPanel {
  private readonly visits = new Map<string, number>()
  /** Where each act on a display last led, and how often what was done least there was done. */
  private readonly leads = new Map<string, Map<string, string>>()
  private readonly fewest = new Map<string, number>()

  /** Goes about the panel, to where least was tried, until this much was done. */
  explore(acts: number): void {
    for (let count = 0; count < acts; count++) {
      const { asked } = this
      const from = this.place()
      const offers = this.offers()
      const wanted = count % 2 === 0 ? this.wayOn(from, offers) : null
      const fewest = Math.min(...offers.map(({ id }) => this.visits.get(id) ?? 0))
      const least = offers.filter(({ id }) => (this.visits.get(id) ?? 0) === fewest)
      const chosen = wanted ?? least[Math.floor(this.random() * least.length)]
      if (!chosen) throw new RangeError('explore: nothing can be done')
      this.visits.set(chosen.id, (this.visits.get(chosen.id) ?? 0) + chosen.weight)
      for (const input of chosen.inputs) this.both(input)
      this.leads.set(from, (this.leads.get(from) ?? new Map<string, string>()).set(chosen.id, this.place()))
      this.fewest.set(from, fewest)
      if (this.asked > asked) for (const alike of alikeKeys(this.sketch)) this.sayAlike(alike)
    }
  }

  /** Presses any key, or gives any whole answer, this often: what nobody goes to on purpose. */
  wander(acts: number): void {
    for (let count = 0; count < acts; count++)
      for (const input of anyAct(this.real, this.at, this.random)) this.both(input)
  }

  /** The first act on the way to the display on which least was tried; null where it is this one. */
  private wayOn(
    from: string,
    offers: ReturnType<ExploringInstaller['offers']>,
  ): (typeof offers)[number] | null {
    const first = new Map<string, string>([[from, '']])
    let least = from
    // What is set during the walk is walked too: a map goes on as long as it grows.
    for (const [screen, act] of first) {
      if ((this.fewest.get(screen) ?? 0) < (this.fewest.get(least) ?? 0)) least = screen
      for (const [id, to] of this.leads.get(screen) ?? []) if (!first.has(to)) first.set(to, act || id)
    }
    const id = first.get(least)
    return offers.find((one) => one.id === id) ?? null
  }

  /** What may decide what a key does but a digit: something typed, the first or last number, whether the type of the zone hides anything. */
  private case(): string {
    const { pointers, typed } = this.at
    const ends = Object.entries(pointers).map(([name, number]) => {
      const range = this.real.description.pointers[name]
      return number === range?.from ? 'first' : number === range?.to ? 'last' : ''
    })
    const type = this.model.responseTypes.find(
      ({ code }) => code === held(this.at)(`zone.${pointers.zone ?? 0}.response`),
    )
    return [(typed ?? '') === '' ? '' : 'typed', ...ends, type?.hides.join() ?? '', type?.fire].join()
  }

  private place(): string {
    return `${this.at.screen} ${this.case()}`
  }

  /** What can be done at the display that stands there: each key, and each whole answer. */
  private offers(): readonly {
    readonly weight: number
    readonly id: string
    readonly inputs: readonly Input[]
  }[] {
    const { screen } = this.at
    const told = screenOf(this.real, screen)
    const standing = this.case()
    const press = [...this.real.keys].map((key) => ({
      weight: 1,
      id: `${screen} ${key} ${/^\d$/.test(key) ? '' : standing}`,
      inputs: [{ kind: 'press', key } as const],
    }))
    const holds = Object.entries(told.holds ?? {}).map(([key, { seconds }]) => ({
      weight: 1,
      id: `${screen} hold ${key}`,
      inputs: [{ kind: 'hold', key, seconds } as const],
    }))
    const { idle } = this.real.description
    const waits =
      idle && told.widget.kind !== 'busy'
        ? [{ weight: 1, id: 'idle', inputs: [{ kind: 'wait', seconds: idle.seconds } as const] }]
        : []
    // A whole answer tells more than one of its keys.
    const whole = wholeAnswers(this.real, this.at, this.random).map((one) => ({ weight: 0.2, ...one }))
    return [...press, ...holds, ...waits, ...whole]
  }
}
