<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { costWords, defaultHouseRules, figureWords, schools, type HouseRules } from '#core'
import { useSession } from '../line/session.ts'
import FigureInput from './FigureInput.vue'
import RulesPreview from './RulesPreview.vue'
import { useRulesDraft } from './useRulesDraft.ts'

const session = useSession()
const draft = useRulesDraft()
const loaded = ref(false)
const mayChange = computed(() => session.may('rules'))
onMounted(async () => {
  await session.loadHouseRules()
  draft.reset()
  loaded.value = true
})

function isDefault(key: keyof HouseRules['schools']): boolean {
  return draft.rules.value.schools[key] === defaultHouseRules.schools[key]
}
</script>

<template>
  <v-main>
    <div class="page rules">
      <div class="page-head">
        <h1>House rules</h1>
        <span class="quiet">What {{ session.person?.firm }} does where practitioners differ</span>
      </div>
      <p class="quiet lead">
        A job follows these until its hand-over, which fixes them; a job may depart from one with a written
        reason. The first choice of each is the safer one.
        <template v-if="!mayChange"> Only an owner changes them, or whoever the owner lets. </template>
      </p>
      <RulesPreview v-if="draft.changed.value" :draft="draft" />
      <section v-if="loaded" class="sheet pa-5">
        <h2>Schools</h2>
        <div class="questions">
          <fieldset v-for="school in schools" :key="school.key" :disabled="!mayChange">
            <legend>
              {{ school.question }}
              <span v-if="!isDefault(school.key)" class="own">◆ not the default</span>
            </legend>
            <label v-for="choice in school.choices" :key="choice.key" class="choice">
              <input
                type="radio"
                :name="school.key"
                :value="choice.key"
                :checked="draft.rules.value.schools[school.key] === choice.key"
                @change="draft.setSchool(school.key, choice.key)"
              />
              <span
                ><strong>{{ choice.name }}</strong
                ><span class="quiet"> — {{ choice.reason }}</span></span
              >
            </label>
          </fieldset>
        </div>
      </section>
      <section v-if="loaded" class="sheet pa-5 two">
        <div>
          <h2>Figures</h2>
          <label v-for="(words, key) in figureWords" :key="key" class="figure">
            <span
              >{{ words.name }} <span class="quiet small">{{ words.source }}</span></span
            >
            <span class="value"
              ><FigureInput
                :value="draft.rules.value.figures[key]"
                :disabled="!mayChange"
                :wrong="`figures.${key}` in draft.faults.value"
                @change="draft.setNumber('figures', key, $event)"
              />
              {{ words.unit }}</span
            >
            <span v-if="draft.faults.value[`figures.${key}`]" class="fault" role="alert"
              >{{ words.name }} {{ draft.faults.value[`figures.${key}`] }}</span
            >
          </label>
        </div>
        <div>
          <h2>What a remedy costs</h2>
          <p class="quiet small">
            Remedies and the whole-kit solver take the cheapest; the figures are for comparing, not money.
          </p>
          <label v-for="(words, key) in costWords" :key="key" class="figure">
            <span>{{ words }}</span>
            <span class="value"
              ><FigureInput
                :value="draft.rules.value.costs[key]"
                :disabled="!mayChange"
                :wrong="`costs.${key}` in draft.faults.value"
                @change="draft.setNumber('costs', key, $event)"
            /></span>
            <span v-if="draft.faults.value[`costs.${key}`]" class="fault" role="alert"
              >{{ words }} {{ draft.faults.value[`costs.${key}`] }}</span
            >
          </label>
        </div>
      </section>
    </div>
  </v-main>
</template>

<style scoped>
.rules {
  max-width: 1100px;
  display: grid;
  gap: 14px;
}
.rules .page-head {
  margin-bottom: 0;
}
.lead {
  margin: 0;
  max-width: 75ch;
}
.questions {
  columns: 2;
  column-gap: 36px;
}
fieldset {
  border: 0;
  padding: 0;
  margin: 12px 0 0;
  break-inside: avoid;
}
legend {
  font-weight: 650;
  padding: 0;
}
.own {
  color: rgb(var(--v-theme-secondary-darken, var(--v-theme-primary)));
  font-weight: 500;
  font-size: 0.8125rem;
}
.choice {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 4px;
  min-height: 30px;
  padding: 4px 0;
  align-items: start;
}
.choice input {
  width: 18px;
  height: 18px;
  margin: 2px 0 0;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 36px;
  align-items: start;
}
.figure {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  padding: 5px 0;
  border-bottom: 1px solid rgba(var(--v-theme-on-surface), 0.08);
}
.value {
  min-width: 110px;
}
.fault {
  grid-column: 1 / -1;
  color: rgb(var(--v-theme-error));
}
.small {
  font-size: 0.8125rem;
}
@media (max-width: 800px) {
  .questions {
    columns: 1;
  }
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
