<script setup lang="ts">
import { BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip, type ChartOptions } from 'chart.js'
import { computed } from 'vue'
import { Bar } from 'vue-chartjs'
import { useTheme } from 'vuetify'
import type { EntryWay } from '#core'

/** The table beside it says the same for those who cannot see it. */
Chart.register(BarElement, CategoryScale, LinearScale, Legend, Tooltip)

const props = defineProps<{ ways: readonly EntryWay[]; chosen: (way: EntryWay) => number | null }>()
const theme = useTheme()
const colours = computed(() => {
  const now = theme.current.value.colors
  return [now.primary, now.secondary, `${now['on-surface']}55`, `${now.success}`] as string[]
})
const data = computed(() => {
  const rows = props.ways
  const left = (way: EntryWay): number => Math.max(0, (props.chosen(way) ?? way.seconds) - way.seconds)
  const set = (label: string, index: number, value: (way: EntryWay) => number) => ({
    label,
    data: rows.map((way) => Math.round(value(way) * 10) / 10),
    backgroundColor: colours.value[index],
    borderColor: theme.current.value.colors.surface as string,
    borderWidth: 1,
  })
  return {
    labels: rows.map((way) => `${way.name} · entry ${way.delay}`),
    datasets: [
      set('walk', 0, (way) => way.walk.seconds),
      set('code', 1, (way) => way.keyIn),
      set('margin', 2, (way) => way.margin),
      set('remains', 3, left),
    ],
  }
})
const options = computed<ChartOptions<'bar'>>(() => {
  const ink = `${String(theme.current.value.colors['on-surface'])}cc`
  return {
    indexAxis: 'y',
    animation: false,
    maintainAspectRatio: false,
    scales: {
      x: {
        stacked: true,
        title: { display: true, text: 'seconds', color: ink },
        ticks: { color: ink },
        grid: { color: `${String(theme.current.value.colors['on-surface'])}1f` },
      },
      y: { stacked: true, ticks: { color: ink }, grid: { display: false } },
    },
    plugins: { legend: { position: 'bottom', labels: { color: ink, boxWidth: 12 } } },
  }
})
</script>

<template>
  <div class="chart" :style="{ height: `${90 + 34 * ways.length}px` }">
    <Bar :data="data" :options="options" aria-hidden="true" />
  </div>
</template>

<style scoped>
.chart {
  position: relative;
  max-width: 760px;
}
</style>
