/* What the name of an opening or a room tells of it. */

const door = /\b(doors?|gates?|entrance|entry|exit|way in|porch|shutter)\b/i
const window =
  /\b(windows?|casement|sash|sky ?lights?|roof ?lights?|fan ?lights?|lights?|dormer|panes?|hatch|hatches|flaps?|vents?|grilles?|chutes?|louvres?|wells?|slider|slide|shaft)\b/i
const petDoor = /\b(cat|dog|pet)[ -]?(flap|door|hatch)\b/i

/** Whether an opening is one that people seldom come in by: a window, a hatch, a cat flap. A garden door with a window is a door. */
export function isWindowLike(name: string): boolean {
  return petDoor.test(name) || (window.test(name) && !door.test(name) && !/french/i.test(name))
}

/** Whether a name says that something opens at all: a door, a window, a gate. */
export function namesOpening(name: string): boolean {
  return door.test(name) || window.test(name) || /door|gate|window/i.test(name)
}

/** What is put up in a house and is no opening of it. */
const devices =
  /\b(key ?pads?|panels?|sirens?|bells?|motions?|sensors?|detectors?|contacts?|fobs?|receivers?|repeaters?|smokes?|cameras?|pirs?|transmitters?|buttons?|pendants?|keys?)\b/i

/** Whether a name is that of a device rather than of an opening or a room. */
export function namesDevice(name: string): boolean {
  return devices.test(name) && !/\b(doors?|windows?|rooms?)\b/i.test(name)
}
