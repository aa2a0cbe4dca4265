import { useLocalStorage } from '@vueuse/core'
import { v4 as uuid } from 'uuid'
import { computed, ref, watch } from 'vue'
import {
  clashWith,
  fobPass,
  fobPassRecords,
  heardRecord,
  isOfLifeSafety,
  jobInfo,
  judgeClash,
  judgeDisplayed,
  judgeHeard,
  judgeTyped,
  learningRound,
  loopOps,
  NO_STICKER,
  readLabelLink,
  readSticker,
  recordOf,
  sisterSerial,
  targetOf,
  targetsOf,
  timesHeard,
  UNCONFIRMED,
  wantsConfirming,
  withoutSecond,
  type DeviceModel,
  type Displayed,
  type Heard,
  type Judgement,
  type Op,
  type RoundBy,
  type Target,
  type Transmission,
} from '#core'
import { api } from '../../line/api.ts'
import { useSession } from '../../line/session.ts'
import { useJob } from '../../store/job-store.ts'
import type { Air } from './useAir.ts'
import { withoutWords } from './words.ts'

/** What is shown beside the sticker: heard on the practice air, read off the panel's display, or typed and scanned. */
export interface Candidate {
  readonly source: 'air' | 'display' | 'typed'
  readonly serial: string
  readonly heard: Transmission | null
  /** What the display showed, where that was less than the whole ID. */
  readonly shown: string | null
}

/** Enrolling one target after the other: what is heard or typed is judged, accepted or refused, and kept on record. */
export function useEnrol(air: Air) {
  const job = useJob()
  const session = useSession()
  const chosen = ref<string | null>(null)
  const candidate = ref<Candidate | null>(null)
  const follow = ref(true)
  const loop = ref<number | null>(null)
  const holding = ref(false)
  const said = ref('')
  /** How devices are gone through; what is learned next follows it. */
  const by = useLocalStorage<RoundBy>('kapelle-round', 'room')
  const parts = computed(() => {
    const { doc, catalogue } = job
    return learningRound({ doc, catalogue }, targetsOf(doc, catalogue), by.value)
  })
  const targets = computed(() => parts.value.flatMap((part) => part.targets))
  const target = computed(
    () =>
      targets.value.find((item) => item.id === chosen.value) ??
      targets.value.find((item) => !item.done) ??
      targets.value[0] ??
      null,
  )
  const family = computed(() =>
    target.value ? (job.system?.byId.get(target.value.device.id)?.family ?? null) : null,
  )
  const model = computed(() =>
    target.value ? (job.system?.byId.get(target.value.device.id)?.model ?? null) : null,
  )
  /** What the firm's other jobs know of the ID that is looked at, or of one nearly it; offline it stays unknown. */
  const around = ref<readonly { serial: string; job: string }[]>([])
  const elsewhere = computed(() => [...(job.elsewhere ?? []), ...around.value])
  /** What is judged by. */
  const about = (of: Target) => ({
    ...{ doc: job.doc, catalogue: job.catalogue },
    ...{ target: of, elsewhere: elsewhere.value },
  })
  const judgement = computed((): Judgement | null => {
    if (!target.value || !candidate.value) return null
    const { heard, serial, source, shown } = candidate.value
    if (!heard) return judgeTyped(about(target.value), serial)
    if (source === 'air') {
      const other = clashWith(air.heard.value, heard)
      if (other) return judgeClash({ doc: job.doc, catalogue: job.catalogue }, heard, other)
    }
    if (shown !== null) {
      const { cause, loop: told } = heard
      const displayed = { signs: shown, cause, loop: told } as Displayed
      const reading = judgeDisplayed(about(target.value), displayed)
      return reading.ok ? reading.judgement : { kind: 'refuse', code: 'ambiguous', reason: reading.reason }
    }
    return judgeHeard(about(target.value), heard)
  })
  /** A real job never hears simulated air: what it knows is read off the panel's display or a sticker. */
  const practice = computed(() => jobInfo(job.doc).practice)
  /** How often the display showed the same, as somebody says. */
  const seen = ref(0)
  watch(
    () => candidate.value?.serial ?? '',
    (serial) => {
      around.value = []
      if (serial !== '') void askAround(serial)
    },
  )

  async function askAround(serial: string): Promise<void> {
    const path = `/api/jobs/${job.jobId ?? ''}/around?serial=${serial}`
    const answer = await api<{ uses: { serial: string; job: string }[] }>('GET', path).catch(() => null)
    if (answer && candidate.value?.serial === serial) around.value = answer.uses
  }

  const sister = computed(() =>
    target.value && !target.value.done ? sisterSerial(job.doc, target.value) : null,
  )
  /** Without a sticker to compare with, the device is tripped alone twice, whatever the house rule asks. */
  const withoutSticker = computed(
    () => candidate.value?.heard !== null && target.value !== null && target.value.device.sticker === null,
  )
  /** How often it was heard, or its display read. */
  const times = computed(() => {
    const heard = candidate.value?.heard
    if (!heard) return null
    if (candidate.value?.source === 'display') return seen.value
    // What is looked at was heard, also where the list of what was heard does not go back so far.
    return Math.max(1, timesHeard(air.heard.value, heard))
  })
  /** The same where a second time is asked for, by the house rule or for want of a sticker; null where none is. */
  const heardTimes = computed(() => {
    if (times.value === null || !model.value || judgement.value?.kind === 'refuse') return null
    const firm = session.houseRules.schools.confirm
    const asked = withoutSticker.value || wantsConfirming(model.value, job.rules.schools.confirm, firm)
    return asked ? times.value : null
  })
  const heardOnce = computed(() => heardTimes.value !== null && heardTimes.value < 2)
  /** A reason to go without the second transmission, for devices of one class while this page is open; null for none. */
  const without = ref<{ readonly of: DeviceModel['class']; readonly reason: string; count: number } | null>(
    null,
  )
  const mayGoWithout = computed(
    () =>
      heardOnce.value &&
      !withoutSticker.value &&
      model.value !== null &&
      !isOfLifeSafety(model.value) &&
      !goesWithout.value,
  )
  const goesWithout = computed(
    () =>
      heardOnce.value &&
      !withoutSticker.value &&
      model.value !== null &&
      !isOfLifeSafety(model.value) &&
      without.value?.of === model.value.class,
  )
  const unconfirmed = computed(() => heardOnce.value && !goesWithout.value)

  /** Goes without for this device's class; gives what is wrong with the reason, else nothing. */
  function goWithout(reason: string): string {
    if (!model.value || !mayGoWithout.value) return 'This one must be confirmed.'
    if (reason.trim().length < 3) return 'must be a reason of at least 3 characters'
    without.value = { of: model.value.class, reason: reason.trim().slice(0, 200), count: 0 }
    return ''
  }
  /** What the house rule asks of a second transmission, in words; empty where it asks none. */
  const confirming = computed(() => {
    if (heardTimes.value === null) return ''
    if (goesWithout.value) return withoutWords(without.value)
    const display = candidate.value?.source === 'display'
    if (!unconfirmed.value)
      return display
        ? `✓ Shown ${heardTimes.value} times: confirmed.`
        : `✓ Heard ${heardTimes.value} times: confirmed.`
    if (withoutSticker.value)
      return '○ No sticker to compare with: trip it alone once more and see the same ID.'
    const life =
      model.value && isOfLifeSafety(model.value) ? ' It is of life safety: this is never left out.' : ''
    return `○ House rule: trip it once more to confirm it. ${display ? 'Shown' : 'Heard'} once so far.${life}`
  })
  const open = computed(() => targets.value.filter((item) => !item.done).length)

  // What belongs to an open target of this job comes to the front by itself, unless a decision is waiting.
  watch(air.heard, (all, before) => {
    const fresh = all.filter((item) => !before.includes(item))
    const latest = fresh.find((item) => targetOf(targets.value, item)) ?? fresh[0]
    if (!latest) return
    const owner = targetOf(targets.value, latest)
    const waiting =
      candidate.value !== null && (candidate.value.source !== 'air' || judgement.value?.kind !== 'refuse')
    if (waiting || holding.value) return
    if (owner && (follow.value || owner.id === target.value?.id)) {
      choose(owner.id)
      show(latest)
    } else if (!owner && !follow.value) show(latest)
  })

  function choose(id: string): void {
    if (id !== chosen.value) candidate.value = null
    chosen.value = id
    loop.value = null
    said.value = ''
  }

  function show(heard: Transmission): void {
    candidate.value = { source: 'air', serial: heard.serial, heard, shown: null }
    loop.value = null
    said.value = ''
  }

  /** What the panel's display shows; gives the reason when it cannot be taken as a reading. */
  function display(displayed: Displayed): string {
    if (!target.value) return 'Choose what to enrol first.'
    const reading = judgeDisplayed(about(target.value), displayed)
    if (!reading.ok) return reading.reason
    const { heard, shown } = reading
    const before = candidate.value
    const again =
      before?.source === 'display' && before.serial === heard.serial && before.heard?.cause === heard.cause
    seen.value = again ? seen.value + 1 : 1
    candidate.value = { source: 'display', serial: heard.serial, heard, shown }
    loop.value = null
    said.value = ''
    return ''
  }

  /** What made it send, or the loop beside the ID, is told after the ID was compared: the same reading, told in full. */
  function tellMore(more: Pick<Displayed, 'cause' | 'loop'>): void {
    const what = candidate.value
    if (!target.value || what?.source !== 'display') return
    const reading = judgeDisplayed(about(target.value), { signs: what.shown ?? what.serial, ...more })
    if (reading.ok) candidate.value = { ...what, heard: reading.heard }
  }

  /** The device was tripped again, and the display showed the same. */
  function sawAgain(): void {
    if (candidate.value?.source === 'display') seen.value += 1
  }

  /** Notes a typed ID as what the device's own sticker says: a reading of the sticker, not of the air. */
  function noteSticker(): void {
    const now = target.value
    const what = candidate.value
    if (!now || what?.source !== 'typed') return
    const { id, sticker, stickerUnsure } = now.device
    const ops: Op[] = [
      ...(sticker === what.serial
        ? []
        : [{ op: 'set' as const, id, field: 'sticker', from: sticker, to: what.serial }]),
      ...(stickerUnsure ? [{ op: 'set' as const, id, field: 'stickerUnsure', from: true, to: false }] : []),
    ]
    if (ops.length > 0 && !job.edit('device.set', ops)) return
    candidate.value = null
    said.value = `${now.name}: the sticker is noted. Now make it transmit and compare.`
  }

  /** What was heard is refused by a noted sticker that, it may be, nobody can read any more. */
  const mayForget = computed(() => {
    const verdict = judgement.value
    const bySticker = ['look-alike', 'foreign', 'sticker-unsure']
    return (
      verdict?.kind === 'refuse' &&
      bySticker.includes(verdict.code) &&
      candidate.value?.heard !== null &&
      target.value?.device.sticker != null
    )
  })

  /** Takes a noted sticker back that cannot be read any more: the device is then known by being tripped alone, twice. */
  function forgetSticker(): void {
    const now = target.value
    if (!now || !mayForget.value) return
    note('refused')
    const { id, sticker, stickerUnsure } = now.device
    const ops: Op[] = [
      { op: 'set', id, field: 'sticker', from: sticker, to: null },
      ...(stickerUnsure ? [{ op: 'set' as const, id, field: 'stickerUnsure', from: true, to: false }] : []),
    ]
    if (!job.edit('device.set', ops)) return
    candidate.value = null
    said.value = `${now.name}: no sticker is noted any more. Trip it alone twice; its armed trip settles it.`
  }

  /** Turns to a device, by its first zone that is not learned yet; gives the reason when there is none here. */
  function turnTo(device: string): string {
    const mine = targets.value.filter((item) => item.device.id === device)
    const next = mine.find((item) => !item.done) ?? mine[0]
    if (!next) return 'That label is of a device that is not learned here: it is wired, deferred or gone.'
    choose(next.id)
    said.value = `${next.name}, by its label.${next.done ? ' It is learned already.' : ''}`
    return ''
  }

  /** A typed or scanned sticker, or the code of a box label; gives the reason when it cannot be read. */
  function type(text: string): string {
    const label = readLabelLink(text)
    if (label)
      return label.job === job.jobId
        ? turnTo(label.device)
        : 'That label is of another job. Open that job first.'
    if (!family.value || !target.value) return 'Choose what to enrol first.'
    const read = readSticker(family.value, text)
    if (!read.ok) return read.reason
    candidate.value = { source: 'typed', serial: read.serial, heard: null, shown: null }
    if (judgement.value?.kind === 'refuse') note('refused')
    return ''
  }

  function accept(): void {
    const now = target.value
    const what = candidate.value
    if (!now || !what || !judgement.value || judgement.value.kind === 'refuse' || unconfirmed.value) return
    if (judgement.value.kind === 'ask-loop' && loop.value !== (now.loop?.loop ?? null)) return
    const skipped = goesWithout.value
    if (!enrol(now, evidence('accepted'))) return
    if (skipped && without.value) without.value = { ...without.value, count: without.value.count + 1 }
    next(`${now.name} is accepted.`)
  }

  /** What was heard is an edit of its own; the loop that the zone takes by it comes second. */
  function enrol(now: Target, record: Heard): boolean {
    if (!job.edit('enrol.accept', [{ op: 'add', record }])) return false
    job.edit('zone.set', loopOps(now))
    return true
  }

  /** Takes an enrolled target out of the panel again: it is then to be learned anew. */
  function release(): void {
    const now = target.value
    if (!now?.serial) return
    const facts = {
      serial: now.serial,
      family: family.value?.id ?? '',
      cause: 'released',
      loop: null,
      level: null,
      source: practice.value ? ('practice' as const) : ('display' as const),
    }
    const record = heardRecord(job.doc, {
      id: `heard:${uuid()}`,
      target: now,
      facts,
      decision: 'released',
      code: 'released',
      reason: 'Taken out of the panel, to be learned again.',
      who: job.me,
      at: new Date().toISOString(),
    })
    if (job.edit('enrol.release', [{ op: 'add', record }]))
      said.value = `${now.name} is noted as taken out of the panel: learn it again.`
  }

  function takeSister(): void {
    const now = target.value
    if (!now || !sister.value) return
    candidate.value = { source: 'typed', serial: sister.value, heard: null, shown: null }
    // Without a sticker the sister's ID is compared with nothing here: it was heard there, and is settled there.
    const verdict = judgement.value
    const unread = verdict?.kind === 'query' && verdict.code === 'typed-only'
    if (verdict?.kind !== 'accept' && !unread) return
    const record = { ...evidence('accepted'), cause: 'sister' }
    if (enrol(now, record)) next(`${now.name} has its sister’s ID.`)
  }

  /** Buttons that the panel learned with one of the same fob. */
  const pass = computed(() => (target.value ? fobPass(job, target.value) : []))

  function takePass(): void {
    if (!target.value) return
    const made = { newId: () => `heard:${uuid()}`, who: job.me, at: new Date().toISOString() }
    const source = practice.value ? 'practice' : 'display'
    const ops = fobPassRecords(job, target.value, { ...made, source }).map((record): Op => ({
      op: 'add',
      record,
    }))
    if (job.edit('enrol.accept', ops)) next('Every button of the fob is learned with that press.')
  }

  function refuse(): void {
    // What was typed and refused is on record from the moment it was tried.
    if (candidate.value && candidate.value.source !== 'typed') note('refused')
    candidate.value = null
    said.value = 'Refused: that goes on record with its reason.'
  }

  function note(decision: 'accepted' | 'refused'): void {
    const record = evidence(decision)
    if (!recordOf(job.doc, 'heard', record.id)) job.edit('enrol.refuse', [{ op: 'add', record }])
  }

  function next(words: string): void {
    chosen.value = targets.value.find((item) => !item.done)?.id ?? target.value?.id ?? null
    candidate.value = null
    loop.value = null
    said.value = open.value === 0 ? `${words} Everything is accepted.` : words
  }

  function evidence(decision: 'accepted' | 'refused'): Heard {
    const now = target.value
    const what = candidate.value
    const verdict = judgement.value
    if (!now || !what) throw new RangeError('evidence: nothing was heard or typed for a target')
    return heardRecord(job.doc, {
      id: `heard:${uuid()}`,
      target: now,
      facts: {
        serial: what.serial,
        family: what.heard?.family ?? family.value?.id ?? '',
        cause: what.heard?.cause ?? 'typed',
        loop: what.heard?.loop ?? null,
        level: what.source === 'air' ? (what.heard?.level ?? null) : null,
        source: sourceOf(what),
        shown: what.shown,
        times: times.value,
      },
      decision,
      ...(decision === 'accepted' && goesWithout.value && without.value
        ? { code: UNCONFIRMED, reason: withoutSecond(without.value.reason) }
        : {
            // That nothing was compared outlives whatever else was asked about: only a trip at its place settles it.
            code:
              decision === 'accepted' && withoutSticker.value
                ? NO_STICKER
                : verdict && 'code' in verdict
                  ? verdict.code
                  : (verdict?.kind ?? ''),
            reason: verdict?.reason ?? '',
          }),
      who: job.me,
      at: new Date().toISOString(),
    })
  }

  /** Where what is shown comes from: in a practice job everything is practice, whatever somebody types as seen. */
  function sourceOf({ source }: Candidate): Heard['source'] {
    if (practice.value) return 'practice'
    return source === 'display' ? 'display' : 'sticker'
  }

  return {
    practice,
    display,
    sawAgain,
    tellMore,
    noteSticker,
    mayForget,
    forgetSticker,
    withoutSticker,
    heardOnce,
    by,
    parts,
    targets,
    target,
    family,
    model,
    candidate,
    judgement,
    confirming,
    unconfirmed,
    mayGoWithout,
    goesWithout,
    goWithout,
    without,
    follow,
    holding,
    loop,
    said,
    sister,
    open,
    choose,
    show,
    turnTo,
    type,
    accept,
    refuse,
    release,
    takeSister,
    pass,
    takePass,
  }
}

/** Everything that Enrol shows and does. */
export type Enrolling = ReturnType<typeof useEnrol>
export type { Target }
