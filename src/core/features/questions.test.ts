import { readyDemo } from '../../../demo/ready';
import { placeAnchors } from '../composing/edits';
import type { Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { addSections, declareSystems } from './edits';
import type { Question } from './questions';
import { featuresView } from './view';

const demo: Project = (() => {
  const whole = readyDemo();
  return { ...whole, features: { ...whole.features, sections: [] } };
})();
const withRules = (text: string, project = demo): Project => {
  const added = addSections(project, { sections: [{ title: 'Mine', text }] });
  if (!added.ok) throw new Error(added.reason);
  return added.project;
};
function asked(project: Project): Question[] {
  const view = featuresView(project, project.masters[0]!.id);
  expect(view.sections.flatMap((s) => s.faults)).toEqual([]);
  return [...view.questions, ...view.sections.flatMap((s) => s.questions)];
}
const reasons = (project: Project): string[] => asked(project).map((q) => q.reason);

test('a language that rules name loses all other features, which is told and mended by declaring it', () => {
  const project = withRules(
    'feature locl { script latn; language TRK; sub i by dotlessi; } locl; feature smcp { sub a by a.sc; } smcp; feature liga { sub f i by f_i; } liga;',
  );
  const [question] = asked(project).filter((q) => q.mend?.kind === 'systems');
  expect(question!.reason).toMatch(
    /^Text in TRK \(latn\) has no liga smcp: rules name it, and only what is said there holds\./,
  );
  const { mend } = question!;
  if (mend?.kind !== 'systems') throw new Error('no mend');
  const mended = declareSystems(project, { systems: mend.systems.map(([s, l]) => [s, l]) });
  if (!mended.ok) throw new Error(mended.reason);
  expect(mended.project.features.sections[0]!.text).toBe(
    'languagesystem DFLT dflt;\nlanguagesystem latn dflt;\nlanguagesystem latn TRK;\n',
  );
  expect(asked(mended.project).filter((q) => q.mend?.kind === 'systems')).toEqual([]);
  // A second one goes behind those that stand there.
  const second = declareSystems(mended.project, { systems: [['latn', 'ROM']] });
  expect(second.ok && second.project.features.sections[0]!.text).toMatch(/TRK;\nlanguagesystem latn ROM;\n$/);
  expect(declareSystems(mended.project, { systems: [['latn', 'TRK']] }).ok).toBe(false);
});

test('glyphs that no text reaches are named, and rules that wait for them; a rule that makes them answers both', () => {
  const lost = withRules('feature ss01 { sub q.sc by x.sc; } ss01;');
  const [global, own] = [asked(lost).find((q) => !q.section), asked(lost).find((q) => q.section)];
  expect(global!.glyphs).toEqual(
    expect.arrayContaining(['q.sc', 'x.sc', 'zero.tnum'].filter((n) => glyphNamed(demo, n))),
  );
  expect(own!.reason).toBe('Rules wait for q.sc, which no text reaches; they never apply.');
  const found = withRules('feature smcp { sub q by q.sc; } smcp;', lost);
  expect(asked(found).filter((q) => q.section)).toEqual([]);
  expect(asked(found).find((q) => !q.section)!.glyphs).not.toContain('x.sc');
});

test('ligatures of letters without carets are told, in the masters that lack them, and get them', () => {
  const bare = Object.fromEntries(
    Object.entries(demo.glyphs).map(([id, g]) => [
      id,
      {
        ...g,
        drawings: Object.fromEntries(
          Object.entries(g.drawings).map(([m, d]) => [
            m,
            { ...d, anchors: d.anchors.filter((a) => a.role !== 'caret' && !/^caret/.test(a.name)) },
          ]),
        ),
      },
    ]),
  );
  const text = 'feature liga { sub f f i by f_f_i; sub f i by f_i; } liga;';
  const project = withRules(text, { ...demo, glyphs: bare });
  const [question] = asked(project).filter((q) => q.mend?.kind === 'carets');
  expect(question).toMatchObject({
    glyphs: ['f_f_i', 'f_i'],
    reason: expect.stringMatching(/^2 ligatures have no caret: /),
  });
  const ids = question!.glyphs.map((n) => glyphNamed(project, n)!.id);
  const placed = placeAnchors(project, { glyphs: ids });
  if (!placed.ok) throw new Error(placed.reason);
  expect(asked(placed.project).filter((q) => q.mend?.kind === 'carets')).toEqual([]);
  // Carets that the text gives count as well.
  expect(
    asked(
      withRules(`${text} table GDEF { LigatureCaretByPos f_i 100; LigatureCaretByPos f_f_i 100 200; } GDEF;`, {
        ...demo,
        glyphs: bare,
      }),
    ).filter((q) => q.mend),
  ).toEqual([]);
  // One master only.
  const [first, ...others] = placed.project.masters;
  const fi = glyphNamed(placed.project, 'f_i')!;
  const light = { ...fi.drawings[first!.id]!, anchors: [] };
  const one = {
    ...placed.project,
    glyphs: { ...placed.project.glyphs, [fi.id]: { ...fi, drawings: { ...fi.drawings, [first!.id]: light } } },
  };
  expect(others.length).toBeGreaterThan(0);
  expect(reasons(one)).toContain(
    `The ligature f_i has no caret in ${first!.name}: text cannot put the cursor between its letters.`,
  );
});

test('a form that is much wider, or stands far off, in one master is told there; figures of one width are held to it', () => {
  const moved = (name: string, by: { advance?: number; x?: number }, masters: readonly string[]): Project => {
    const glyph = glyphNamed(demo, name)!;
    const drawings = Object.fromEntries(
      Object.entries(glyph.drawings).map(([m, d]) => [
        m,
        masters.includes(m)
          ? {
              ...d,
              advance: d.advance + (by.advance ?? 0),
              contours: d.contours.map((c) => ({
                ...c,
                points: c.points.map((p) => ({ ...p, x: p.x + (by.x ?? 0) })),
              })),
            }
          : d,
      ]),
    );
    return { ...demo, glyphs: { ...demo.glyphs, [glyph.id]: { ...glyph, drawings } } };
  };
  const alternate = 'feature ss01 { sub a by a.ss01; } ss01;';
  const [, heavy] = demo.masters;
  expect(reasons(withRules(alternate)).filter((r) => /place of/.test(r))).toEqual([]);
  expect(reasons(withRules(alternate, moved('a.ss01', { advance: 500 }, [heavy!.id])))).toContain(
    `a.ss01, in the place of a, is much wider in ${heavy!.name}.`,
  );
  const all = demo.masters.map((m) => m.id);
  expect(reasons(withRules(alternate, moved('a.ss01', { x: 300 }, all)))).toContain(
    'a.ss01, in the place of a, stands much farther from its neighbour at the left.',
  );
  expect(
    reasons(
      withRules(
        alternate,
        moved('a.ss01', { advance: -glyphNamed(demo, 'a.ss01')!.drawings[heavy!.id]!.advance }, [heavy!.id]),
      ),
    ),
  ).toContain(`a.ss01, in the place of a, has no width in ${heavy!.name}.`);
  const figures =
    'feature tnum { sub [one.pnum two.pnum three.pnum] by [one two three]; } tnum; feature pnum { sub [one two three] by [one.pnum two.pnum three.pnum]; } pnum;';
  expect(reasons(withRules(figures)).filter((r) => /one width/.test(r))).toEqual([]);
  const usual = glyphNamed(demo, 'one')!.drawings[heavy!.id]!.advance;
  expect(reasons(withRules(figures, moved('two', { advance: 7 }, [heavy!.id])))).toContain(
    `Figures of one width are ${usual} wide in ${heavy!.name}, but two ${usual + 7}.`,
  );
});
