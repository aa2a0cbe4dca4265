import { describe, expect, it } from 'vitest'
import { recordsOf } from '../job/document.ts'
import { applyOps } from '../job/edit.ts'
import { emptyDocument } from '../job/document.ts'
import { runs } from '../testing/runs.ts'
import { seededRandom } from '../units/random.ts'
import { readHouse } from './house-words.ts'
import { layHouse, type HouseLayout } from './layout.ts'

function lay(text: string): HouseLayout {
  let count = 0
  const { ops, lines } = readHouse(text, emptyDocument, () => `h${(count += 1)}`)
  expect(lines.filter((line) => !line.ok)).toEqual([])
  const applied = applyOps(emptyDocument, ops)
  if (!applied.ok) throw new Error(JSON.stringify(applied.conflict))
  return layHouse({ rooms: recordsOf(applied.doc, 'room'), ways: recordsOf(applied.doc, 'way') })
}

/** Each floor as rows of names, a dot for an empty cell. */
function drawn({ floors }: HouseLayout): readonly (readonly [string, readonly string[]])[] {
  return floors.map(({ name, columns, rows, boxes }) => [
    name,
    Array.from({ length: rows }, (_, y) =>
      Array.from({ length: columns }, (_, x) => {
        const box = boxes.find((one) => one.y === y && x >= one.x && x < one.x + one.width)
        return box?.room.name ?? '.'
      }).join(' '),
    ),
  ])
}

const gates = ({ floors }: HouseLayout) =>
  floors.map((floor) => floor.gates.map(({ x, y, across, way }) => [x, y, across ? '→' : '↓', way.metres]))
const links = (layout: HouseLayout) =>
  [...layout.links.values()].flatMap((all) => all.map(({ to }) => to.name)).sort()

describe('the house laid out', () => {
  it('puts a room beside the one that a way joins it with, and a gate between them', () => {
    const layout = lay('Porch:\nHall:\nPorch - Hall 3')
    expect(drawn(layout)).toEqual([['', ['Porch Hall']]])
    expect(gates(layout)).toEqual([[[0, 0, '→', 3]]])
    expect(links(layout)).toEqual([])
  })

  it('gives a hall with six rooms sides for all of them', () => {
    const names = ['Front', 'Lounge', 'Den', 'Bedroom', 'Bathroom', 'Utility']
    const layout = lay(['Hall:', ...names.map((name) => `Hall - ${name} 4`), ...names].join('\n'))
    const hall = layout.floors[0]?.boxes.find(({ room }) => room.name === 'Hall')
    expect(hall?.width).toBe(2)
    expect(layout.floors[0]?.gates).toHaveLength(6)
    expect(links(layout)).toEqual([])
  })

  it('keeps floors apart, the highest first, and tells where stairs lead', () => {
    const layout = lay(
      'Hall: floor Ground\nKitchen: floor Ground\nCellar: floor Basement\nLanding: floor Upper\nHall - Kitchen 4\nHall - Landing 6 stairs\nKitchen - Cellar 4 stairs',
    )
    expect(drawn(layout)).toEqual([
      ['Upper', ['Landing']],
      ['Ground', ['Hall Kitchen']],
      ['Basement', ['Cellar']],
    ])
    expect(links(layout)).toEqual(['Cellar', 'Hall', 'Kitchen', 'Landing'])
  })

  it.each([
    ['Attic', 'Second', 'First', 'Ground', 'Cellar'],
    ['Roof', 'Top floor', 'Upper', 'Gallery', 'Main', 'Lower'],
    ['2', '1', '0', '-1'],
    ['Level 3', 'Floor 2', 'Ground'],
  ])('knows what is above what: %s …', (...floors) => {
    const layout = lay(
      [...floors]
        .reverse()
        .map((floor, index) => `Room ${index}: floor ${floor}`)
        .join('\n'),
    )
    expect(layout.floors.map(({ name }) => name)).toEqual(floors)
  })

  it('takes a room for one of the floor that it is joined with', () => {
    const layout = lay(
      'Hall: floor Ground\nStudy:\nLanding: floor Upper\nBox room:\nHall - Study 3\nLanding - Box room 2',
    )
    expect(layout.floors.map(({ name, boxes }) => [name, boxes.map(({ room }) => room.name).sort()])).toEqual(
      [
        ['Upper', ['Box room', 'Landing']],
        ['Ground', ['Hall', 'Study']],
      ],
    )
  })

  it('puts what only stairs lead to on a level of its own where no floor was said', () => {
    const layout = lay('Hall:\nKitchen:\nLoft:\nHall - Kitchen 3\nHall - Loft 3 stairs')
    expect(drawn(layout)).toEqual([
      ['', ['Loft']],
      ['', ['Hall Kitchen']],
    ])
  })

  it('lays rooms without ways together, and none for no rooms', () => {
    expect(drawn(lay('Hall:\nStudy:\nShed:'))).toHaveLength(1)
    expect(lay('')).toEqual({ floors: [], links: new Map() })
  })

  it('tells a way between rooms that do not touch, at either end', () => {
    // Four rooms all joined with one another: on a grid two of them lie crosswise.
    const layout = lay('A:\nB:\nC:\nD:\nA - B 1\nA - C 1\nA - D 1\nB - C 1\nB - D 1\nC - D 1')
    expect(layout.floors[0]?.gates).toHaveLength(4)
    expect(links(layout)).toHaveLength(4)
  })

  it('shows every room once and every way, on whatever house', () => {
    for (let seed = 0; seed < runs(400); seed++) {
      const random = seededRandom(seed)
      const below = (most: number) => Math.floor(random() * most)
      const count = 1 + below(24)
      const floors = ['', '', 'Ground', 'Upper']
      const rooms = Array.from({ length: count }, (_, n) => {
        const floor = floors[below(4)] ?? ''
        return `Room ${n}:${floor ? ` floor ${floor}` : ''}`
      })
      const pairs = new Map<string, string>()
      for (let n = 0; n < below(3 * count); n++) {
        const [a, b] = [below(count), below(count)]
        const metres = `${1 + below(9)}${below(6) === 0 ? ' stairs' : ''}`
        if (a < b) pairs.set(`${a} ${b}`, `Room ${a} - Room ${b} ${metres}`)
      }
      const words = [...rooms, ...pairs.values()].join('\n')
      const layout = lay(words)
      const cells = new Set<string>()
      const shown: string[] = []
      for (const [index, floor] of layout.floors.entries())
        for (const { room, x, y, width } of floor.boxes) {
          shown.push(room.name)
          expect(x >= 0 && y >= 0 && x + width <= floor.columns && y < floor.rows, words).toBe(true)
          expect(floor.columns, words).toBeLessThanOrEqual(5)
          for (let cell = x; cell < x + width; cell++) {
            expect(cells.has(`${index} ${cell},${y}`), words).toBe(false)
            cells.add(`${index} ${cell},${y}`)
          }
        }
      expect(shown.sort(), words).toEqual(Array.from({ length: count }, (_, n) => `Room ${n}`).sort())
      const told = gates(layout).flat().length + links(layout).length / 2
      expect(told, words).toBe(pairs.size)
      // A gate is where its two rooms touch.
      for (const { gates: all, boxes } of layout.floors)
        for (const { x, y, across, way } of all) {
          const at = (cx: number, cy: number) =>
            boxes.find((box) => box.y === cy && cx >= box.x && cx < box.x + box.width)?.room.id
          const ends = [at(x, y), across ? at(x + 1, y) : at(x, y + 1)]
          expect(ends.sort(), words).toEqual([way.from, way.to].sort())
        }
    }
  })
})
