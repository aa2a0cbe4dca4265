<script setup lang="ts">
import { Graph, layout } from '@dagrejs/dagre'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import { screenMap, type Sketch } from '#core'

/** The map of the displays that were told: where each leads, and what is open. */
const props = defineProps<{ sketch: Sketch; here: string | null }>()
const emit = defineEmits<{ pick: [screen: string] }>()

const SIGN = 8
const LINE = 18
const map = computed(() => screenMap(props.sketch))
const drawn = computed(() => {
  const graph = new Graph()
  graph.setGraph({ rankdir: 'LR', nodesep: 14, ranksep: 46, marginx: 8, marginy: 8 })
  graph.setDefaultEdgeLabel(() => ({}))
  const longest = Math.max(8, ...map.value.screens.flatMap(({ lines }) => lines.map((line) => line.length)))
  const width = Math.min(26, longest) * SIGN + 16
  for (const { name, lines } of map.value.screens)
    graph.setNode(name, { width, height: lines.length * LINE + 26 })
  for (const { from, to } of map.value.ways)
    if (graph.hasNode(from) && graph.hasNode(to)) graph.setEdge(from, to)
  layout(graph)
  const nodes = map.value.screens.map((screen) => ({ ...screen, ...place(graph, screen.name) }))
  const edges = map.value.ways.flatMap(({ from, to, by }) => {
    const points = (graph.edge(from, to) as { points?: readonly { x: number; y: number }[] } | undefined)
      ?.points
    if (!points) return []
    return [
      {
        ...{ id: `${from} ${to}`, title: `${from} → ${to}: ${by.join(', ')}` },
        path: points.map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${x},${y}`).join(' '),
      },
    ]
  })
  const size = graph.graph() as { width?: number; height?: number }
  return { nodes, edges, width: size.width ?? 0, height: size.height ?? 0 }
})

function place(graph: Graph, name: string) {
  const { x, y, width, height } = graph.node(name) as Record<'x' | 'y' | 'width' | 'height', number>
  return { x: x - width / 2, y: y - height / 2, width, height }
}
const frame = useTemplateRef<HTMLElement>('frame')
/** Where one stands is in view. */
watch(
  [() => props.here, drawn],
  async () => {
    await nextTick()
    const node = drawn.value.nodes.find(({ name }) => name === props.here)
    if (node && frame.value)
      frame.value.scrollTo({
        left: node.x + node.width / 2 - frame.value.clientWidth / 2,
        top: node.y + node.height / 2 - frame.value.clientHeight / 2,
      })
  },
  { immediate: true, flush: 'post' },
)
const cut = (line: string): string => (line.length > 26 ? `${line.slice(0, 25)}…` : line)
function words({ name, open, untried }: (typeof map.value.screens)[number]): string {
  const left = [
    ...(open > 0 ? [`${open} open`] : []),
    ...(untried > 0 ? [`${untried} ${untried === 1 ? 'key' : 'keys'} not tried`] : []),
  ]
  return left.length === 0 ? name : `${name}: ${left.join(', ')}`
}
</script>

<template>
  <div ref="frame" class="map" tabindex="0" role="group" aria-label="Map of the displays">
    <svg
      v-if="drawn.nodes.length > 0"
      :width="drawn.width"
      :height="drawn.height"
      :viewBox="`0 0 ${drawn.width} ${drawn.height}`"
    >
      <defs>
        <marker id="tip" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto">
          <path d="M0,0 L8,4 L0,8 z" class="tip" />
        </marker>
      </defs>
      <path v-for="edge in drawn.edges" :key="edge.id" :d="edge.path" class="way" marker-end="url(#tip)">
        <title>{{ edge.title }}</title>
      </path>
      <g
        v-for="node in drawn.nodes"
        :key="node.name"
        :transform="`translate(${node.x},${node.y})`"
        role="button"
        tabindex="0"
        :aria-label="words(node)"
        class="node"
        :class="{ here: node.name === here, open: node.open > 0 }"
        @click="emit('pick', node.name)"
        @keydown.enter="emit('pick', node.name)"
      >
        <rect :width="node.width" :height="node.height" rx="5" />
        <text v-for="(line, index) in node.lines" :key="index" x="8" :y="18 + index * LINE" class="line">
          {{ cut(line) }}
        </text>
        <text x="8" :y="node.height - 7" class="left">
          {{
            node.open > 0 ? `○ ${node.open} open` : node.untried > 0 ? `${node.untried} keys not tried` : '✓'
          }}
        </text>
      </g>
    </svg>
    <p v-else class="quiet">No display was told yet.</p>
  </div>
</template>

<style scoped>
.map {
  overflow: auto;
  max-height: 420px;
  border: 1px solid rgba(var(--v-border-color), var(--v-border-opacity));
  border-radius: 8px;
}
.way {
  fill: none;
  stroke: rgba(var(--v-theme-on-surface), 0.5);
}
.tip {
  fill: rgba(var(--v-theme-on-surface), 0.6);
}
.node {
  cursor: pointer;
}
.node rect {
  fill: rgb(var(--v-theme-surface));
  stroke: rgba(var(--v-theme-on-surface), 0.45);
}
.node.open rect {
  stroke-dasharray: 4 3;
}
.node.here rect {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 3;
}
.line {
  font-family: var(--mono);
  font-size: 13px;
  white-space: pre;
  fill: rgb(var(--v-theme-on-surface));
}
.left {
  font-size: 12px;
  fill: rgba(var(--v-theme-on-surface), 0.75);
}
</style>
