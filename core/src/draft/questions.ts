import type { Catalogue } from '../catalogue/catalogue.ts'
import type { EntryKind } from '../catalogue/schema.ts'
import { deviceQuestions } from './device-questions.ts'
import { familyQuestions } from './family-questions.ts'
import type { Question } from './form.ts'
import { interfaceQuestions } from './interface-questions.ts'
import { panelQuestions } from './panel-questions.ts'
import type { Asked } from './question.ts'
import { receiverQuestions } from './receiver-questions.ts'
import { answersOf, draftInfo, type DraftDocument } from './records.ts'

/** Kinds of entry that can be described by answering. */
export const describedKinds = ['device', 'receiver', 'family', 'panel', 'interface'] as const
/** A kind of entry that can be described by answering. */
export type DescribedKind = (typeof describedKinds)[number]

const byKind: Readonly<Record<DescribedKind, (asked: Asked) => Question[]>> = {
  device: deviceQuestions,
  receiver: receiverQuestions,
  family: familyQuestions,
  panel: panelQuestions,
  interface: interfaceQuestions,
}

/** Whether entries of this kind can be described by answering. */
export function isDescribed(kind: EntryKind): kind is DescribedKind {
  return (describedKinds as readonly string[]).includes(kind)
}

/** What is asked for a draft as it stands, in the order of a leaflet: only what its class can have. */
export function questionsOf(doc: DraftDocument, catalogue: Catalogue): readonly Question[] {
  const info = draftInfo(doc)
  if (!info || !isDescribed(info.kind)) return []
  const answers = answersOf(doc)
  return byKind[info.kind]({
    catalogue,
    of: (path) => answers.get(path),
    paths: () => [...answers.keys()].toSorted(),
  })
}
