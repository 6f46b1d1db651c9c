import { emptyDrawing } from '../src/core/project/create';
import type { Glyph, Project } from '../src/core/project/model';
import { readyDemo } from './ready';

const BASIC = new Set([
  ...'.notdef space a b c d e f g h i j k l m n o p q r s t u v w x y z A B C D E F G H I J K L M N O P Q R S T U V W X Y Z'.split(
    ' ',
  ),
  ...'zero one two three four five six seven eight nine colon period comma hyphen endash ampersand'.split(' '),
]);

/** Signs that stand in the case, not drawn yet. */
const TO_DRAW = ['eacute', 'ntilde', 'Oslash', 'germandbls', 'arrowright', 'quoteright'];

/**
 * The family as it was on its first day: the Regular alone, the plain alphabet and figures, unkerned, and six signs not
 * yet drawn. Tests begin from it.
 */
export function buildStarter(): Project {
  starter ??= build();
  return starter;
}

let starter: Project | undefined;

function build(): Project {
  const demo = readyDemo();
  const regular = demo.masters.find((m) => m.id === 'm1')!;
  const plain = (g: Glyph): Glyph => {
    const { m1 } = g.drawings;
    const drawing = TO_DRAW.includes(g.name) ? emptyDrawing(500) : { ...m1!, anchors: [] };
    return { ...g, unicodes: g.unicodes.slice(0, 1), drawings: { m1: drawing }, follows: { left: [], right: [] } };
  };
  const all = demo.glyphOrder.map((id) => demo.glyphs[id]!);
  const chosen = [...all.filter((g) => BASIC.has(g.name)), ...TO_DRAW.map((name) => all.find((g) => g.name === name)!)];
  return {
    ...demo,
    axes: [],
    instances: [],
    groups: [],
    features: { ...demo.features, sections: [] },
    settings: (({ deriving: _, recipes: __, ...rest }) => rest)(demo.settings),
    masters: [
      {
        ...regular,
        place: {},
        kerning: {},
        stems: regular.stems.slice(0, 2),
        zones: { ...regular.zones, own: [] },
      },
    ],
    glyphs: Object.fromEntries(chosen.map((g) => [g.id, plain(g)])),
    glyphOrder: chosen.map((g) => g.id),
    texts: {
      galley: 'Griffin Halt 07:45 – 18:30  Hamborn & Orde  Velmarrow Light Railway',
      words: ['Hamborn & Orde', 'nnonnoonn HHOHH 0010', 'Griffin Halt', 'Velmarrow Light Railway'],
      pairs: [],
    },
  };
}
