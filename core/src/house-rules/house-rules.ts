import { z } from 'zod'

/*
 * What a firm decides where practitioners differ, and the figures it reckons with. The safer school is
 * the default; a job may depart from one with a written reason.
 */

const number = (from: number, to: number) =>
  z
    .number(`must be a number from ${from} to ${to}`)
    .min(from, `must be at least ${from}`)
    .max(to, `must be at most ${to}`)

const schoolSchemas = {
  seesLeaf: z.enum(['delay', 'follow']),
  offWay: z.enum(['region', 'instant', 'follow']),
  glass: z.enum(['by-room', 'both', 'away-only']),
  fire: z.enum(['plain', 'delayed', 'verified']),
  sisters: z.enum(['every', 'one']),
  holdBurglary: z.enum(['region', 'window', 'none']),
  localReport: z.enum(['off', 'on']),
  identity: z.enum(['learn', 'type']),
  confirm: z.enum(['by-class', 'always', 'never']),
  reading: z.enum(['best', 'works']),
  wiredBlock: z.enum(['if-used', 'kept', 'from-1']),
  fobStore: z.enum(['panel', 'keypad']),
  smokeHeat: z.enum(['apart', 'joined']),
  labelOrder: z.enum(['place-thing', 'thing-place']),
  placeOfWork: z.enum(['bench', 'on-site']),
  sheetOrder: z.enum(['shortest', 'plan']),
} as const

/** Figures of a firm, each with its unit in the comment. */
const figureSchemas = {
  /** Walking pace of most people, m/s. */
  paceOrdinary: number(0.2, 3),
  /** Walking pace of a slow person, m/s. */
  paceSlow: number(0.1, 3),
  /** Part of the pace that is left on stairs. */
  stairs: number(0.1, 1),
  /** Seconds to key a code. */
  keyIn: number(0, 60),
  /** Seconds to spare. */
  margin: number(0, 60),
  /** Numbers to leave free for growth behind the last zone. */
  growth: number(0, 100).int(),
  /** Usual gap of contact and magnet where the model states none, mm. */
  usualGapMm: number(1, 100),
} as const

const costSchemas = {
  setting: number(0, 1000),
  firmware: number(0, 1000),
  swap: number(0, 1000),
  receiver: number(0, 1000),
  panel: number(0, 1000),
  enrol: number(0, 1000),
} as const

/** The schema of a firm's house rules; what is missing takes its default. */
export const houseRulesSchema = z.strictObject({
  schools: z.strictObject(schoolSchemas),
  figures: z.strictObject(figureSchemas),
  costs: z.strictObject(costSchemas),
})

/** The rules of a firm: schools and figures. */
export type HouseRules = Readonly<z.infer<typeof houseRulesSchema>>
/** A question on which practitioners differ. */
export type SchoolKey = keyof typeof schoolSchemas
/** The answer to each question. */
export type Schools = HouseRules['schools']
/** The figures that a firm may set, in their units. */
export type Figures = HouseRules['figures']
/** The name of a figure. */
export type FigureKey = keyof typeof figureSchemas
/** What each kind of change counts in a remedy. */
export type RemedyCosts = HouseRules['costs']

/** The house rules of a firm that has set none: the safer school each, usual figures. */
export const defaultHouseRules: HouseRules = {
  schools: {
    seesLeaf: 'delay',
    offWay: 'region',
    glass: 'by-room',
    fire: 'plain',
    sisters: 'every',
    holdBurglary: 'region',
    localReport: 'off',
    identity: 'learn',
    confirm: 'by-class',
    reading: 'best',
    wiredBlock: 'if-used',
    fobStore: 'panel',
    smokeHeat: 'apart',
    labelOrder: 'place-thing',
    placeOfWork: 'bench',
    sheetOrder: 'shortest',
  },
  figures: {
    paceOrdinary: 1.2,
    paceSlow: 0.6,
    stairs: 0.5,
    keyIn: 8,
    margin: 5,
    growth: 4,
    usualGapMm: 25,
  },
  costs: { setting: 1, firmware: 3, swap: 5, receiver: 8, panel: 40, enrol: 1 },
}

/** Whether a word is a choice of a school. */
export function isChoice(school: string, choice: string): boolean {
  return Object.hasOwn(schoolSchemas, school) && schoolSchemas[school as SchoolKey].safeParse(choice).success
}

/** House rules from what was stored or sent, whatever is missing or no longer known filled from the defaults. */
export function completeHouseRules(stored: unknown): HouseRules {
  const from = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>
  return {
    schools: fill(schoolSchemas, from.schools, defaultHouseRules.schools),
    figures: fill(figureSchemas, from.figures, defaultHouseRules.figures),
    costs: fill(costSchemas, from.costs, defaultHouseRules.costs),
  }
}

function fill<T extends Readonly<Record<string, unknown>>>(
  schemas: Readonly<Record<string, z.ZodType>>,
  stored: unknown,
  defaults: T,
): T {
  const given = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>
  const filled: Record<string, unknown> = {}
  for (const key of Object.keys(defaults))
    filled[key] = schemas[key]?.safeParse(given[key]).success ? given[key] : defaults[key]
  return filled as T
}
