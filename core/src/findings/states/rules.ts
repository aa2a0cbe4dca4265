import { stateAbout, stateRules } from '../../proof/states.ts'
import { utcTimes } from '../../units/times.ts'
import type { RulesOf } from '../finding.ts'

/** What the rules on temporary states find. */
export interface StateFacts {
  readonly 'state-overdue': {
    /** What it is, as a sentence's beginning. */
    readonly state: string
    /** What it is about; empty for the whole system. */
    readonly about: string
    readonly who: string
    /** When it was to end, UTC. */
    readonly until: string
    /** The same as it is written for who reads it. */
    readonly ended: string
  }
}

/** Rules on temporary states: they end. */
export const overdueRules: RulesOf<StateFacts> = {
  'state-overdue': {
    severity: 'risks',
    stage: 'prove',
    key: ['state', 'about', 'until'],
    find: (c) =>
      c.openStates.flatMap((state) =>
        c.now !== '' && Date.parse(state.until) < Date.parse(c.now)
          ? [
              {
                subject: state.id,
                field: 'until',
                facts: {
                  state: stateRules[state.kind].name,
                  about: stateAbout(c.doc, c.catalogue, state),
                  who: state.who,
                  until: state.until,
                  ended: (c.times ?? utcTimes).moment(state.until),
                },
                fix: null,
              },
            ]
          : [],
      ),
  },
}
