import type { Catalogue } from '../catalogue/catalogue.ts'
import type { DeviceModel, Family, PanelModel } from '../catalogue/schema.ts'
import type { ProofKind } from '../proof/table.ts'
import { answerFrom, beginDraft } from './entry.ts'
import type { Question } from './form.ts'
import { formProblem } from './form-problem.ts'
import { questionsOf } from './questions.ts'
import { answerOps, answerTo, draftKernel, sourceOps, type Answer, type DraftOp } from './records.ts'

/* What a job taught goes back to an entry: as a draft of its correction, which somebody reads before it counts. */

/** A new answer to one question of an entry, from what it was, and where it was seen. */
interface Seen {
  readonly path: string
  readonly value: (was: Answer['value'] | undefined) => Answer['value']
  /** As the answer's source: `seen on the panel, The Old Ropewalk`; empty where nobody says. */
  readonly source: string
}

/** A new draft that corrects an entry by one answer; what else it says stays. */
export function correctionBy(
  entry: DeviceModel | Family | PanelModel,
  { path, value, source }: Seen,
  catalogue: Catalogue,
): readonly DraftOp[] {
  const first = beginDraft(entry.kind, { like: entry, corrects: true }, catalogue)
  const begun = draftKernel.applyOps(draftKernel.empty, first)
  if (!begun.ok) throw new RangeError('correctionBy: a correction begins')
  const second = answerOps(begun.doc, path, value(answerTo(begun.doc, path)?.value))
  const answered = draftKernel.applyOps(begun.doc, second)
  if (!answered.ok) throw new RangeError('correctionBy: an answer is given once')
  return [...first, ...second, ...sourceOps(answered.doc, path, source.slice(0, 80))]
}

/** A figure of an entry that shows itself at a proof: how it is asked, and what the entry says. */
export interface SeenFigure {
  readonly entry: DeviceModel | Family
  readonly path: string
  readonly ask: string
  readonly unit: string
  /** Null where it is not stated. */
  readonly stated: number | null
}

/** Figures that whoever proves a device sees for themselves: how long a motion sleeps, and from which reading on its links hold. */
export function figuresSeenAt(
  kind: ProofKind,
  { model, family }: { readonly model: DeviceModel | null; readonly family: Family | null },
  catalogue: Catalogue,
): readonly SeenFigure[] {
  if (model?.class === 'motion' && model.family !== null && (kind === 'armed' || kind === 'walk'))
    return figuresOf(model, ['sleepsSeconds'], catalogue)
  if (family && (kind === 'placement' || kind === 'average'))
    return figuresOf(family, ['placement.best', 'placement.least'], catalogue)
  return []
}

function figuresOf(
  entry: DeviceModel | Family,
  paths: readonly string[],
  catalogue: Catalogue,
): readonly SeenFigure[] {
  const asked = questionsAbout(entry, catalogue)
  return paths.flatMap((path): SeenFigure[] => {
    const question = asked.find((one) => one.path === path)
    if (question?.form.is !== 'number') return []
    const stated = answerFrom(entry, path)
    const own = entry.kind === 'family' ? (entry.placement.unit ?? '') : ''
    return [
      {
        ...{ entry, path, ask: question.ask, unit: question.form.unit || own },
        stated: typeof stated === 'number' ? stated : null,
      },
    ]
  })
}

/** Why a figure cannot be an answer to its question, with what is allowed; empty where it can. */
export function figureProblem({ entry, path }: SeenFigure, value: number, catalogue: Catalogue): string {
  const question = questionsAbout(entry, catalogue).find((one) => one.path === path)
  return question ? formProblem(question.form, value) : ''
}

function questionsAbout(entry: DeviceModel | Family, catalogue: Catalogue): readonly Question[] {
  const begun = draftKernel.applyOps(
    draftKernel.empty,
    beginDraft(entry.kind, { like: entry, corrects: true }, catalogue),
  )
  return begun.ok ? questionsOf(begun.doc, catalogue) : []
}
