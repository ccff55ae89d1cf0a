import { ICONS } from '../app/editor/icons'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import type { NewLook } from '../core/look/look'

const fire = ICONS.find(icon => icon.name === 'fire')!

/** The look the owner made: for what has to do with kilns. */
export const KILN_LOOK: NewLook = {
  name: 'Warm kiln',
  appearance: {
    ...BUILT_IN_LOOKS[0]!.appearance,
    width: 300,
    radius: 10,
    border: { width: 0, sides: 'all', colour: 'line' },
    words: '#FFFFFF',
    fill: {
      kind: 'gradient',
      angle: 165,
      stops: [
        { colour: '#A8481F', at: 0 },
        { colour: '#6E2A14', at: 100 },
      ],
    },
    shadow: { x: 0, y: 3, blur: 10, colour: 'ink', strength: 26 },
    icon: { name: fire.name, path: fire.path, place: 'before', size: 30, gap: 14, colour: '#FFD9A8' },
    hover: { fill: { kind: 'plain', colour: '#6E2A14' } },
    pressed: { shadow: null },
  },
}
