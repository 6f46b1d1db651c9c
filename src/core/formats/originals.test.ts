import fc from 'fast-check';
import { setSides } from '../fitting/sides';
import { setPair } from '../kerning/edits';
import type { Outcome } from '../project/edit';
import { setFamily, setMasterName } from '../project/edits';
import { addGlyphs } from '../project/glyphEdits';
import type { Lib, Project } from '../project/model';
import { glyphNamed } from '../project/queries';
import { removeGlyphs } from '../project/removal';
import { addInstances, removeInstance, setInstance } from '../variation/familyEdits';
import { type FileTree, textFile } from './fileTree';
import { merged } from './merged';
import { projectFiles, projectFromFiles, readProjectFile, ufoFiles, writeProjectFile } from './project/projectFile';
import { restyledGlif, restyledPlist } from './restyled';

/** A UFO as another program writes it: tabs, another order of attributes and parts, entries for glyphs that are not there. */
const plist = (body: string) =>
  `<?xml version='1.0' encoding='UTF-8'?>\n<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">\n<plist version="1.0">\n${body}\n</plist>\n`;
const A = `<?xml version='1.0' encoding='UTF-8'?>
<glyph format="2" formatMinor="1" name="a">
	<unicode hex="0061" />
	<advance width="400" />
	<outline>
		<contour>
			<point type="line" x="10.4999999" y="0" />
			<point type="line" x="100" y="0" name="p" />
			<point type="line" x="50" y="100" />
		</contour>
	</outline>
	<anchor x="50" y="100" />
	<lib>
		<dict>
			<key>com.example.z</key>
			<real>0.25</real>
		</dict>
	</lib>
</glyph>
`;
const FOREIGN: Readonly<Record<string, string>> = {
  'metainfo.plist': plist(
    '<dict>\n\t<key>creator</key>\n\t<string>some.tool</string>\n\t<key>formatVersion</key>\n\t<integer>3</integer>\n</dict>',
  ),
  'fontinfo.plist': plist(
    '<dict>\n\t<key>unitsPerEm</key>\n\t<integer>1000</integer>\n\t<key>familyName</key>\n\t<string>Orde</string>\n\t<key>styleName</key>\n\t<string>Book</string>\n</dict>',
  ),
  'layercontents.plist': plist(
    '<array>\n\t<array>\n\t\t<string>foreground</string>\n\t\t<string>glyphs</string>\n\t</array>\n\t<array>\n\t\t<string>sketch</string>\n\t\t<string>glyphs.sketch</string>\n\t</array>\n</array>',
  ),
  'glyphs.sketch/contents.plist': plist('<dict>\n</dict>'),
  'glyphs/contents.plist': plist(
    '<dict>\n\t<key>b</key>\n\t<string>b.glif</string>\n\t<key>a</key>\n\t<string>glyph_a.glif</string>\n</dict>',
  ),
  'glyphs/glyph_a.glif': A,
  'glyphs/b.glif': `<?xml version='1.0' encoding='UTF-8'?>\n<glyph format="2" name="b">\n\t<advance width="-20" />\n</glyph>\n`,
  'groups.plist': plist(
    '<dict>\n\t<key>public.kern1.a</key>\n\t<array>\n\t\t<string>gone</string>\n\t\t<string>a</string>\n\t</array>\n\t<key>mine</key>\n\t<array>\n\t\t<string>gone</string>\n\t</array>\n</dict>',
  ),
  'kerning.plist': plist(
    '<dict>\n\t<key>gone</key>\n\t<dict>\n\t\t<key>a</key>\n\t\t<integer>-7</integer>\n\t</dict>\n\t<key>public.kern1.a</key>\n\t<dict>\n\t\t<key>b</key>\n\t\t<real>-20.0</real>\n\t</dict>\n</dict>',
  ),
  'lib.plist': plist(
    '<dict>\n\t<key>public.glyphOrder</key>\n\t<array>\n\t\t<string>zz</string>\n\t\t<string>a</string>\n\t\t<string>yy</string>\n\t\t<string>b</string>\n\t</array>\n\t<key>public.openTypeCategories</key>\n\t<dict>\n\t\t<key>a</key>\n\t\t<string>unassigned</string>\n\t\t<key>gone</key>\n\t\t<string>mark</string>\n\t</dict>\n</dict>',
  ),
};
const source = (): FileTree =>
  new Map(Object.entries(FOREIGN).map(([path, text]) => [`Orde.ufo/${path}`, textFile(text)]));

function opened(files: FileTree = source()): Project {
  const read = projectFromFiles(files, 'Orde.ufo');
  if (!read.ok) throw new Error(read.reason);
  return read.value;
}
const done = (outcome: Outcome): Project => {
  if (!outcome.ok) throw new Error(outcome.reason);
  return outcome.project;
};
const asText = (files: FileTree) =>
  Object.fromEntries(
    [...files].map(([path, bytes]) => [path.replace(/^Orde\.ufo\//, ''), new TextDecoder().decode(bytes)]),
  );
const ufoOf = (project: Project) =>
  asText(new Map([...projectFiles(project)].filter(([path]) => path.startsWith('Orde.ufo/'))));
const at = (project: Project, name: string) => ({ glyph: glyphNamed(project, name)!.id, master: 'm1' });

/** Lines that are only in one of two texts. */
function difference(before: string, after: string): string[] {
  const [a, b] = [before.split('\n'), after.split('\n')];
  return [
    ...a.filter((l) => !b.includes(l)).map((l) => `- ${l.trim()}`),
    ...b.filter((l) => !a.includes(l)).map((l) => `+ ${l.trim()}`),
  ];
}
const changedFiles = (now: Record<string, string>) =>
  [...new Set([...Object.keys(FOREIGN), ...Object.keys(now)])].filter((path) => FOREIGN[path] !== now[path]).sort();

test('what was not changed goes back to the letter: by its folder, under another name, and through a project file', () => {
  const project = opened();
  expect(ufoOf(project)).toEqual(FOREIGN);
  expect(asText(ufoFiles(project, project.masters[0]!, 'Other.ufo'))).toEqual(FOREIGN);
  const again = readProjectFile(writeProjectFile(project), 'orde.wendril');
  if (!again.ok) throw new Error(again.reason);
  expect(ufoOf(again.value)).toEqual(FOREIGN);
});

test('a width that no font holds opens as 0, stands in a note, and stays in its file until it is set', () => {
  const project = opened();
  const b = glyphNamed(project, 'b')!;
  expect(b.drawings.m1!.advance).toBe(0);
  expect(b.note).toBe('Orde.ufo/glyphs/b.glif, line 3: the advance width -20 is negative; it counts as 0.');
  const set = ufoOf(done(setSides(project, { at: at(project, 'b'), advance: 20 })));
  expect(difference(FOREIGN['glyphs/b.glif']!, set['glyphs/b.glif']!)).toContain('+ <advance width="20" />');
});

test('one glyph edited is one file changed, in the form that it had', () => {
  const project = opened();
  const now = ufoOf(done(setSides(project, { at: at(project, 'a'), advance: 412 })));
  expect(changedFiles(now)).toEqual(['glyphs/glyph_a.glif']);
  expect(difference(A, now['glyphs/glyph_a.glif']!)).toEqual([
    '- <advance width="400" />',
    '+ <advance width="412" />',
  ]);
});

test('a fact of the family is one line; nothing is made up beside it', () => {
  const now = ufoOf(done(setFamily(opened(), { designer: 'Ada Orde' })));
  expect(changedFiles(now)).toEqual(['fontinfo.plist']);
  expect(difference(FOREIGN['fontinfo.plist']!, now['fontinfo.plist']!)).toEqual([
    '+ <key>openTypeNameDesigner</key>',
    '+ <string>Ada Orde</string>',
  ]);
});

test('comments of a file stay where they stand when it is changed; of what is gone they stand at its end', () => {
  const glif = A.replace('\t<advance', '\t<!-- as wide as n -->\n\t<advance')
    .replace(
      '\t\t\t<point type="line" x="50"',
      '\t\t\t<!-- the <point> on top -->\n\t\t\t<!-- twice -->\n\t\t\t<point type="line" x="50"',
    )
    .replace('\t<lib>', '\t<!-- of a tool -->\n\t<lib>')
    .replace('</glyph>', '\t<!-- the end -->\n</glyph>');
  const info = FOREIGN['fontinfo.plist']!.replace('\t<key>styleName', '\t<!-- not Regular -->\n\t<key>styleName');
  const files = new Map(source());
  files.set('Orde.ufo/glyphs/glyph_a.glif', textFile(glif));
  files.set('Orde.ufo/fontinfo.plist', textFile(info));
  const project = opened(files);
  const wider = ufoOf(done(setSides(project, { at: at(project, 'a'), right: 305 })));
  expect(wider['glyphs/glyph_a.glif']).toBe(glif.replace('width="400"', 'width="405"'));
  const renamed = ufoOf(done(setFamily(project, { name: 'Hamborn' })));
  expect(renamed['fontinfo.plist']).toBe(info.replace('Orde', 'Hamborn'));
  const fewer = restyledGlif(
    '<?xml version="1.0"?>\n<glyph name="a" format="2">\n  <advance width="4"/>\n</glyph>\n',
    glif,
  );
  for (const said of ['as wide as n', 'the <point> on top', 'twice', 'of a tool', 'the end'])
    expect(fewer).toContain(`\t<!-- ${said} -->\n`);
  expect(fewer.match(/<!--/g)).toHaveLength(5);
});

test('what is said of glyphs that are not there stays, when others come and go', () => {
  const project = opened();
  const more = done(addGlyphs(project, { requests: [{ name: 'c', unicodes: [0x63] }] }));
  const added = ufoOf(more);
  expect(changedFiles(added)).toEqual(['glyphs/c.glif', 'glyphs/contents.plist', 'lib.plist']);
  const names = (text: string) => [...text.matchAll(/<string>(\w+)<\/string>/g)].map((m) => m[1]);
  expect(names(added['lib.plist']!).slice(0, 5)).toEqual(['zz', 'a', 'yy', 'b', 'c']);
  expect(added['lib.plist']).toContain('unassigned');
  const fewer = ufoOf(done(removeGlyphs(project, { ids: [at(project, 'b').glyph] })));
  expect(Object.keys(fewer)).not.toContain('glyphs/b.glif');
  expect(names(fewer['lib.plist']!).slice(0, 3)).toEqual(['zz', 'a', 'yy']);
  expect(fewer['kerning.plist']).toContain('gone');
  expect(fewer['groups.plist']).toBe(FOREIGN['groups.plist']);
  const { glyph, master } = at(project, 'a');
  const side = { kind: 'glyph' as const, id: glyph };
  const kerned = ufoOf(done(setPair(project, { master, first: side, second: side, value: -3 })));
  expect(changedFiles(kerned)).toEqual(['kerning.plist']);
  expect(kerned['kerning.plist']).toMatch(/gone[\s\S]*-7[\s\S]*-20[\s\S]*-3|gone[\s\S]*-7[\s\S]*-3[\s\S]*-20/);
});

test('what nobody changed is as it was; where nothing was otherwise, what is now holds', () => {
  const value: fc.Arbitrary<Lib> = fc.dictionary(
    fc.stringMatching(/^[a-d]$/),
    fc.oneof(
      fc.integer(),
      fc.string(),
      fc.array(fc.stringMatching(/^[a-f]$/)),
      fc.dictionary(fc.stringMatching(/^[x-z]$/), fc.integer()),
    ),
  ) as fc.Arbitrary<Lib>;
  fc.assert(
    fc.property(value, value, value, (a, b, c) => {
      expect(merged(a, b, b)).toEqual(a);
      expect(merged(a, a, c)).toEqual(c);
      expect(merged(undefined, undefined, c)).toEqual(c);
    }),
  );
  expect(merged({ a: 1, keep: 2 }, { a: 1, made: 3 }, { a: 5, made: 3 })).toEqual({ a: 5, keep: 2 });
});

test('forms: line ends, no indentation, a note with lines of its own', () => {
  const ours = `<?xml version="1.0" encoding="UTF-8"?>\n<glyph name="n" format="2">\n  <advance width="5"/>\n  <note>\nfirst\n  second\n  </note>\n</glyph>\n`;
  const windows = restyledGlif(
    ours,
    '<?xml version="1.0"?>\r\n<glyph name="n" format="2">\r\n<advance width="4"/>\r\n</glyph>',
  );
  expect(windows).toBe(
    '<?xml version="1.0"?>\r\n<glyph name="n" format="2">\r\n<advance width="5"/>\r\n<note>\r\nfirst\r\n  second\r\n</note>\r\n</glyph>',
  );
  const wide = restyledPlist(
    plist('  <dict>\n    <key>a</key>\n    <array>\n      <string>b</string>\n    </array>\n  </dict>'),
    plist('<dict>\n\t<key>z</key>\n\t<true/>\n</dict>'),
  );
  expect(wide).toContain('\n<dict>\n\t<key>a</key>\n\t<array>\n\t\t<string>b</string>\n\t</array>\n</dict>\n');
});

const SPACE = `<?xml version='1.0' encoding='UTF-8'?>
<designspace format="5.1">
  <axes elidedfallbackname="Book">
    <axis default="400" maximum="700" minimum="400" name="weight" tag="wght">
      <labelname xml:lang="fr">Graisse</labelname>
      <labels ordering="2">
        <label name="Book" uservalue="400">
          <labelname xml:lang="fr">Livre</labelname>
        </label>
        <label name="Bold" uservalue="700"/>
      </labels>
    </axis>
    <mappings>
      <mapping>
        <input>
          <dimension name="weight" xvalue="600"/>
        </input>
        <output>
          <dimension name="weight" xvalue="610"/>
        </output>
      </mapping>
    </mappings>
  </axes>
  <labels>
    <label name="Stout">
      <location>
        <dimension name="weight" uservalue="650"/>
      </location>
    </label>
  </labels>
  <sources>
    <source filename="Light.ufo" name="light" familyname="Orde">
      <lib copy="1"/>
      <location>
        <dimension name="weight" xvalue="400"/>
      </location>
    </source>
    <source filename="Bold.ufo" name="bold" stylename="Bold">
      <location>
        <dimension name="weight" xvalue="700"/>
      </location>
    </source>
  </sources>
  <variable-fonts>
    <variable-font name="OrdeVF">
      <axis-subsets>
        <axis-subset name="weight"/>
      </axis-subsets>
    </variable-font>
  </variable-fonts>
  <instances>
    <instance stylename="Stout" name="s" location="Stout">
      <stylename xml:lang="de">Stark</stylename>
    </instance>
    <instance stylename="Bold" name="b">
      <location>
        <dimension name="weight" xvalue="700"/>
      </location>
    </instance>
  </instances>
</designspace>
`;

function family(space = SPACE): Project {
  const ufo = (name: string, style: string) =>
    Object.entries(FOREIGN).map(([path, text]) => [`${name}/${path}`, textFile(text.replace('Book', style))] as const);
  const read = projectFromFiles(
    new Map([['Orde.designspace', textFile(space)], ...ufo('Light.ufo', 'Light'), ...ufo('Bold.ufo', 'Bold')]),
    'Orde',
  );
  if (!read.ok) throw new Error(read.reason);
  return read.value;
}
const spaceOf = (project: Project) => new TextDecoder().decode(projectFiles(project).get('Orde.designspace'));

test('a designspace of the newest form goes back to the letter; a change is the lines that it changes', () => {
  const project = family();
  expect(spaceOf(project)).toBe(SPACE);
  const renamed = spaceOf(done(setMasterName(project, { master: project.masters[1]!.id, name: 'Heavy' })));
  expect(difference(SPACE, renamed)).toEqual([
    '- <source filename="Bold.ufo" name="bold" stylename="Bold">',
    '+ <source filename="Bold.ufo" name="bold" stylename="Heavy">',
  ]);
});

test('a place by name is where its label says; moved, the instance has a place of its own', () => {
  const project = family();
  const index = project.instances.findIndex((i) => i.name === 'Stout');
  expect(project.instances[index]!.place).toEqual({ wght: 650 });
  const moved = spaceOf(done(setInstance(project, { index, change: { place: { wght: 500 } } })));
  expect(difference(SPACE, moved)).toEqual([
    '- <instance stylename="Stout" name="s" location="Stout">',
    '+ <instance stylename="Stout" name="s">',
    '+ <dimension name="weight" xvalue="500"/>',
  ]);
  const fewer = spaceOf(done(removeInstance(project, { index })));
  expect(fewer).not.toContain('Stark');
  expect(fewer).toContain('<instance stylename="Bold" name="b">');
  const more = spaceOf(done(addInstances(project, { instances: [{ name: 'Semi', place: { wght: 600 } }] })));
  expect(difference(SPACE, more)).toContain('+ <instance name="Semi" stylename="Semi">');
  expect(more).toContain('<mapping>');
});

test('comments of a designspace stay where they stand when it is changed', () => {
  const said = SPACE.replace('<designspace', '<!-- Orde & its weights -->\n<designspace')
    .replace('    <axis ', '    <!-- the only <axis> -->\n    <axis ')
    .replace('    <source filename="Bold.ufo"', '    <!-- the Bold -->\n    <source filename="Bold.ufo"')
    .replace('Graisse', 'Graisse<!-- so says Ines -->')
    .replace('  </instances>\n', '    <!-- more to come -->\n  </instances>\n');
  const whole = `${said}<!-- the end -->\n`;
  const project = family(whole);
  expect(spaceOf(project)).toBe(whole);
  expect(project.axes[0]!.labels).toEqual({ fr: 'Graisse' });
  const renamed = spaceOf(done(setMasterName(project, { master: project.masters[1]!.id, name: 'Heavy' })));
  expect(renamed).toBe(whole.replace('name="bold" stylename="Bold"', 'name="bold" stylename="Heavy"'));
  // Of an instance that is taken away, what was said beside it stays.
  const index = project.instances.findIndex((i) => i.name === 'Bold');
  const fewer = spaceOf(done(removeInstance(project, { index })));
  expect(fewer).toContain('    </instance>\n    <!-- more to come -->\n  </instances>\n');
  const doctyped = whole.replace('<!-- Orde', '<!DOCTYPE designspace>\n<!-- Orde');
  expect(spaceOf(done(setMasterName(family(doctyped), { master: 'm2', name: 'Heavy' })))).toBe(
    doctyped.replace('name="bold" stylename="Bold"', 'name="bold" stylename="Heavy"'),
  );
});
