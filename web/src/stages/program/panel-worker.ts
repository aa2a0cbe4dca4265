import {
  auditFor,
  Catalogue,
  explainFor,
  lostFor,
  readBackFor,
  type Audit,
  type Explained,
  type ExplainStart,
  type JobDocument,
  type KeptEntry,
  type LostAnswer,
  type LostAsked,
  type ReadBack,
  type SheetStart,
} from '#core'

/** The job that is asked about. */
export interface PanelJob {
  readonly doc: JobDocument
  readonly entries: readonly KeptEntry[]
  readonly start: SheetStart
}

/** What is asked of a panel. */
export type PanelAsked =
  | { readonly kind: 'lost'; readonly asked: LostAsked }
  | { readonly kind: 'plan'; readonly asked: Parameters<ReadBack['plan']> }
  | { readonly kind: 'says'; readonly asked: Parameters<ReadBack['says']> }
  | { readonly kind: 'look'; readonly asked: Parameters<Audit['next']> }
  | { readonly kind: 'stands'; readonly asked: Parameters<Audit['stands']> }
  | { readonly kind: 'report'; readonly asked: Parameters<Audit['report']> }
  | { readonly kind: 'leave'; readonly asked: Parameters<Audit['leave']> }
  | { readonly kind: 'explain'; readonly asked: readonly [text: string, start: ExplainStart] }

/** What comes of each. */
export interface PanelAnswers {
  readonly lost: LostAnswer
  readonly plan: ReturnType<ReadBack['plan']>
  readonly says: ReturnType<ReadBack['says']>
  readonly look: ReturnType<Audit['next']>
  readonly stands: ReturnType<Audit['stands']>
  readonly report: ReturnType<Audit['report']>
  readonly leave: ReturnType<Audit['leave']>
  readonly explain: Explained
}

/** Answers questions about a job's panel; its map is drawn when it is first needed. Null where nobody has described it. */
export function panelDesk({
  doc,
  entries,
  start,
}: PanelJob): (asked: PanelAsked) => PanelAnswers[keyof PanelAnswers] | null {
  const catalogue = new Catalogue(entries)
  let lost: ReturnType<typeof lostFor> | undefined
  let readBack: ReadBack | null | undefined
  let explain: ReturnType<typeof explainFor> | undefined
  let audit: Audit | null | undefined
  return ({ kind, asked }) => {
    switch (kind) {
      case 'lost':
        return (lost ??= lostFor({ doc, catalogue, start }))?.(asked) ?? null
      case 'explain':
        return (explain ??= explainFor(doc, catalogue))?.(...asked) ?? null
      case 'plan':
        return (readBack ??= readBackFor(doc, catalogue))?.plan(...asked) ?? null
      case 'says':
        return (readBack ??= readBackFor(doc, catalogue))?.says(...asked) ?? null
      case 'look':
        return (audit ??= auditFor(doc, catalogue))?.next(...asked) ?? null
      case 'stands':
        return (audit ??= auditFor(doc, catalogue))?.stands(...asked) ?? null
      case 'report':
        return (audit ??= auditFor(doc, catalogue))?.report(...asked) ?? null
      case 'leave':
        return (audit ??= auditFor(doc, catalogue))?.leave(...asked) ?? null
    }
  }
}

/** Messages of the page: first the job, then questions with a number that comes back with the answer. */
export type PanelRequest = { readonly job: PanelJob } | { readonly id: number; readonly asked: PanelAsked }

let desk: ReturnType<typeof panelDesk> | null = null

if (typeof document === 'undefined')
  self.onmessage = (event: MessageEvent<PanelRequest>) => {
    if ('job' in event.data) {
      desk = panelDesk(event.data.job)
      return
    }
    const { id, asked } = event.data
    self.postMessage({ id, answer: desk?.(asked) ?? null })
  }
