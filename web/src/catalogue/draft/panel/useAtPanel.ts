import { computed, nextTick, ref, shallowRef, type Ref } from 'vue'
import {
  actedOut,
  alikeKeys,
  couldDecide,
  landingsOf,
  openPoints,
  panelDisplay,
  passedOver,
  rowed,
  rowOf,
  sketchOf,
  standing,
  switchedOn,
  targetAt,
  toldAlike,
  toldSeen,
  tried,
  valuesDecide,
  withShipped,
  withTold,
  type ActedOut,
  type Alike,
  type Catalogue,
  type Decides,
  type DraftDocument,
  type Effect,
  type Landing,
  type PanelInput,
  type PanelState,
  type SeenAfter,
  type Told,
  type TriedKey,
} from '#core'

/** What was done last, and what the description made of it. */
interface Last {
  readonly input: PanelInput
  readonly from: PanelState
  readonly said: TriedKey
}

/** What is asked now. */
export type AtPanelStep =
  | { readonly is: 'keys' }
  /** What the panel shows, to be typed. */
  | { readonly is: 'lines'; readonly why: 'start' | 'open' | 'other' | 'stand' }
  | { readonly is: 'which'; readonly lines: readonly string[]; readonly found: readonly Landing[] }
  | { readonly is: 'new'; readonly lines: readonly string[] }
  | { readonly is: 'how'; readonly to: Landing }

/** What somebody says besides where a key led. */
export interface How {
  readonly effect: Effect
  readonly beeped: boolean
  readonly along: SeenAfter['along']
  /** Null for *always*; where nothing was told before, there is nothing to decide. */
  readonly decides: Decides | null
}

/** A description in step with the panel before which somebody stands. */
export function useAtPanel(
  doc: Ref<DraftDocument>,
  catalogue: Ref<Catalogue>,
  tell: (told: readonly Told[]) => void,
) {
  const sketch = computed(() => sketchOf(doc.value))
  const model = computed(() => {
    const id = doc.value.records['answer:panel']
    return catalogue.value.get(
      'panel',
      id?.type === 'answer' && typeof id.value === 'string' ? id.value : null,
    )
  })
  const acted = computed((): ActedOut | null => {
    if (!model.value) return null
    const heard = model.value.receivers.flatMap((id) => catalogue.value.get('receiver', id)?.hears ?? [])
    const families = heard.flatMap(({ family }) => catalogue.value.get('family', family) ?? [])
    return actedOut(sketch.value, model.value, families)
  })
  const at = shallowRef<PanelState | null>(null)
  const last = shallowRef<Last | null>(null)
  const step = shallowRef<AtPanelStep>({ is: 'keys' })
  const trouble = ref('')
  const open = computed(() => openPoints(sketch.value))
  const alike = computed(() => alikeKeys(sketch.value).filter((one) => !refused.value.includes(nameOf(one))))
  /** Keys of which somebody said that they do not act alike everywhere. */
  const refused = ref<readonly string[]>([])
  const nameOf = (one: Alike): string => JSON.stringify([one.key, one.target])

  /** Where the panel stands; null before its first display was told, and where a colleague took it back. */
  const here = computed(() => {
    const state = at.value
    return state && Object.hasOwn(sketch.value.screens, state.screen) ? state : null
  })
  const shows = computed(() => (here.value && acted.value ? panelDisplay(acted.value.panel, here.value) : []))

  /** Tells it, and goes on with what then stands. */
  async function say(told: readonly Told[]): Promise<void> {
    const before = acted.value
    tell(told)
    // The page that holds the draft hands it down again.
    await nextTick()
    if (before && acted.value && at.value) at.value = withShipped(acted.value, before, at.value)
  }

  function begin(): void {
    last.value = null
    trouble.value = ''
    if (acted.value && Object.hasOwn(sketch.value.screens, sketch.value.start)) {
      at.value = switchedOn(acted.value.panel, acted.value.panel.factory)
      step.value = { is: 'keys' }
    } else step.value = { is: 'lines', why: 'start' }
  }

  function act(input: PanelInput): void {
    const from = here.value
    if (!acted.value || !from) return
    const said = tried(acted.value, from, input)
    last.value = { input, from, said }
    trouble.value = ''
    if (said.isOpen) step.value = { is: 'lines', why: 'open' }
    else {
      at.value = said.state
      step.value = { is: 'keys' }
    }
  }

  /** The panel shows something else than the description says. */
  function differs(): void {
    step.value = { is: 'lines', why: last.value ? 'other' : 'stand' }
  }

  /** The panel was brought to another display by hand. */
  function stand(): void {
    last.value = null
    step.value = { is: 'lines', why: 'stand' }
  }

  function read(lines: readonly string[]): void {
    const found = landingsOf(sketch.value, lines)
    if (found.length === 0 && !(last.value && sketch.value.display.lines === 1))
      step.value = { is: 'new', lines }
    else step.value = { is: 'which', lines, found: found.slice(0, 4) }
  }

  /** It is this display; or, on one line, a message over the one before. */
  function chosen(to: Landing): void {
    if (!last.value) {
      if (acted.value) at.value = standing(acted.value, at.value, to)
      step.value = { is: 'keys' }
    } else step.value = { is: 'how', to }
  }

  function messageOver(lines: readonly string[]): void {
    const from = last.value?.from
    if (from) chosen({ screen: from.screen, pointers: from.pointers, says: lines[0] ?? '', typed: null })
  }

  /** A new display is told; the first of all is the one at rest. */
  async function toldNew(told: readonly Told[], name: string, lines: readonly string[]): Promise<void> {
    const isFirst = sketch.value.start === ''
    const after = withTold(sketch.value, told)
    await say(isFirst ? [...told, ['start', name]] : told)
    const landing = landingsOf(after, lines).find((one) => one.screen === name && one.says === '') ?? {
      ...{ screen: name, pointers: {}, says: '', typed: null },
    }
    if (isFirst) begin()
    else chosen(landing)
  }

  /** What was told before of the place that led here; null where nobody had. */
  const contradicts = computed(() => {
    const slot = last.value?.said.slot
    return slot && last.value?.said.isOpen === false ? targetAt(sketch.value, slot) : null
  })
  const deciding = computed(() =>
    acted.value && last.value && contradicts.value !== null ? couldDecide(acted.value, last.value.from) : [],
  )
  const values = computed(() =>
    acted.value && last.value && contradicts.value !== null ? valuesDecide(acted.value, last.value.from) : [],
  )
  /** The display that the description showed where the panel went on along its row. */
  const passed = computed(() => {
    const state = last.value?.said
    if (step.value.is !== 'how' || !acted.value || !state || state.isOpen) return null
    const row = rowOf(sketch.value, state.state.screen)
    const to = rowOf(sketch.value, step.value.to.screen)
    if (!row || row[0] !== to?.[0] || state.state.screen === step.value.to.screen) return null
    return {
      screen: state.state.screen,
      when: couldDecide(acted.value, state.state).filter(
        ({ of, guard }) => of === 'now' && !('empty' in guard),
      ),
    }
  })

  function done(to: Landing): void {
    if (acted.value) at.value = standing(acted.value, at.value ?? last.value?.from ?? null, to)
    last.value = null
    trouble.value = ''
    step.value = { is: 'keys' }
  }

  /** Puts down what the key did. */
  async function putDown(to: Landing, how: How): Promise<void> {
    const slot = last.value?.said.slot
    if (!last.value || !slot) {
      done(to)
      return
    }
    const { said, from } = last.value
    const seen: SeenAfter = {
      // Where nobody had said, what was typed and which number it led to is known from the open place.
      from: said.isOpen ? said.state : from,
      ...{ to, effect: how.effect, beeped: how.beeped, along: how.along },
    }
    const told = toldSeen(sketch.value, slot, { seen, decides: how.decides })
    if ('problem' in told) trouble.value = `“${to.screen}” ${told.problem}.`
    else {
      await say(told)
      done(to)
    }
  }

  /** The display that was shown is passed over when this holds. */
  async function putPassed(to: Landing, guard: Decides['guard']): Promise<void> {
    if (passed.value) await say(passedOver(sketch.value, passed.value.screen, guard))
    done(to)
  }

  /** The display that was shown comes before both, or behind both. */
  async function putElsewhere(to: Landing, where: 'before' | 'behind'): Promise<void> {
    const from = last.value?.from.screen
    if (!passed.value || from === undefined) return
    const told =
      where === 'before'
        ? rowed(sketch.value, passed.value.screen, from)
        : rowed(sketch.value, to.screen, passed.value.screen)
    if ('problem' in told) trouble.value = `“${passed.value.screen}” ${told.problem}.`
    else {
      await say(told)
      done(to)
    }
  }

  async function sayAlike(one: Alike, is: boolean): Promise<void> {
    if (is) await say(toldAlike(sketch.value, one))
    else refused.value = [...refused.value, nameOf(one)]
  }

  return {
    ...{
      sketch,
      model,
      acted,
      here,
      shows,
      last,
      step,
      trouble,
      open,
      alike,
      contradicts,
      deciding,
      values,
      passed,
    },
    ...{ begin, act, differs, stand, read, chosen, messageOver, toldNew, putDown, putPassed, putElsewhere },
    ...{ sayAlike, say },
  }
}
