const LOWER = [...'abcdefghijklmnopqrstuvwxyz'];
/** Glyphs that all of the constructs need, in the order of a font. */
export const CONSTRUCT_GLYPHS: readonly string[] = [
  '.notdef',
  'space',
  ...LOWER,
  ...LOWER.map((c) => c.toUpperCase()),
  ...LOWER.map((c) => `${c}.sc`),
  ...'zero one two three four five six seven eight nine slash fraction hyphen period'.split(' '),
  ...'zero one two three'.split(' ').map((n) => `${n}.onum`),
  ...'f_f f_i f_f_i a.alt1 a.alt2 a.alt3 a-cy longs longs_t'.split(' '),
  ...'acutecomb gravecomb dotbelowcomb cedillacomb'.split(' '),
  ...'foo.001 foo.002 foo.003 cid00001 cid00002 cid00003'.split(' '),
];

/** One small text for every construct of the feature language, by name: for tests and for the fuzzer. */
export const CONSTRUCTS: readonly (readonly [name: string, text: string])[] = [
  ['single', 'feature test { sub a by a.sc; substitute b by b.sc; } test;'],
  ['single, class by class', 'feature smcp { sub [a-z] by [a.sc-z.sc]; } smcp;'],
  ['single, class by one', 'feature test { sub [a b c] by x; } test;'],
  ['multiple', 'feature test { sub f_f_i by f f i; sub f_i by f i; } test;'],
  ['alternate', 'feature aalt { } aalt; feature salt { sub a from [a.alt1 a.alt2 a.alt3]; } salt;'],
  ['ligature', 'feature liga { sub f f i by f_f_i; sub f f by f_f; sub f i by f_i; } liga;'],
  ['ligature of classes', 'feature liga { sub [f longs] i by f_i; } liga;'],
  ['chained, inline single', "feature calt { sub [a b]' c by x; sub d e' f by e.sc; } calt;"],
  ['chained, inline ligature', "feature calt { sub a f' i' b by f_i; } calt;"],
  ['chained, inline multiple', "feature calt { sub a f_i' by f i; } calt;"],
  ['chained, inline alternate', "feature calt { sub b a' from [a.alt1 a.alt2]; } calt;"],
  [
    'chained, named lookups',
    "lookup one { sub a by a.sc; } one; lookup two { sub b by b.sc; } two; feature calt { sub x a' lookup one b' lookup two y; } calt;",
  ],
  [
    'context without sides',
    "lookup one { sub a by a.sc; } one; feature calt { sub a' lookup one b'; sub c' a' lookup one; } calt;",
  ],
  ['ignore', "feature calt { ignore sub a b' c, x b'; sub b' by b.sc; } calt;"],
  ['reverse', "feature rclt { rsub [a b]' x by [a.sc b.sc]; rsub y c' by c.sc; } rclt;"],
  ['single position', 'feature test { pos a -20; pos b <10 20 30 40>; pos [c d] 5; } test;'],
  ['pairs of glyphs', 'feature kern { pos A V -80; pos T <0 0 -60 0> o <5 0 0 0>; pos V A -80; } kern;'],
  [
    'pairs of classes',
    '@A = [A a]; @V = [V W]; feature kern { pos A V -90; pos @A @V -50; pos @V @A -40; pos @A [T] -30; } kern;',
  ],
  ['pairs spelled out', 'feature kern { enum pos [A a] [V W] -50; enum pos T [o e] -30; } kern;'],
  ['pairs, classes that overlap', 'feature kern { pos [A B] [V W] -50; pos [B C] [W X] -20; pos [A B] [x] 7; } kern;'],
  ['pairs, breaks of subtables', 'feature kern { pos [A] [V] -50; subtable; pos [A] [V W] -20; } kern;'],
  ['contextual position', "feature kern { pos a' 20 b; pos [x y]' <0 0 -5 0> z' 10 w; } kern;"],
  [
    'contextual position by lookups',
    "lookup k { pos a b -30; } k; feature kern { pos x a' lookup k b'; ignore pos q a' b; pos a' lookup k b' y; } kern;",
  ],
  [
    'cursive',
    'feature curs { pos cursive a <anchor 0 10> <anchor 400 20>; pos cursive b <anchor NULL> <anchor 300 0>; } curs;',
  ],
  [
    'marks on bases',
    'markClass [acutecomb gravecomb] <anchor 150 500> @TOP; markClass dotbelowcomb <anchor 140 0> @BOT; feature mark { pos base a <anchor 200 520> mark @TOP <anchor 210 0> mark @BOT; pos base [b c] <anchor 220 700> mark @TOP; } mark;',
  ],
  [
    'marks on ligatures',
    'markClass acutecomb <anchor 150 500> @TOP; feature mark { pos ligature f_i <anchor 100 700> mark @TOP ligComponent <anchor 350 700> mark @TOP; pos ligature f_f_i <anchor NULL> ligComponent <anchor 200 700> mark @TOP ligComponent <anchor 400 700> mark @TOP; } mark;',
  ],
  [
    'marks on marks',
    'markClass [acutecomb gravecomb] <anchor 150 500> @TOP; feature mkmk { lookupflag UseMarkFilteringSet @TOP; pos mark [acutecomb gravecomb] <anchor 150 700> mark @TOP; } mkmk;',
  ],
  [
    'flags',
    'markClass acutecomb <anchor 0 0> @TOP; feature test { lookupflag IgnoreMarks RightToLeft; sub a by b; lookupflag 0; sub c by d; lookupflag MarkAttachmentType [acutecomb gravecomb]; sub e by f; lookupflag MarkAttachmentType [dotbelowcomb] IgnoreBaseGlyphs IgnoreLigatures; sub g by h; } test;',
  ],
  [
    'systems of languages',
    'languagesystem DFLT dflt; languagesystem latn dflt; languagesystem latn TRK; feature liga { sub f f by f_f; script latn; sub a by b; language TRK exclude_dflt; sub c by d; language MOL; sub e by f; script cyrl; sub x by y; } liga; feature test { sub q by r; } test;',
  ],
  [
    'required',
    'languagesystem DFLT dflt; languagesystem latn dflt; feature hist { script latn; language DEU required; sub a by b; } hist;',
  ],
  [
    'lookups shared',
    'lookup a1 { sub a by b; } a1; feature ss01 { lookup a1; } ss01; feature ss02 { lookup a1; sub x by y; } ss02;',
  ],
  [
    'lookup in a feature',
    'feature ss01 { lookup a1 { lookupflag IgnoreMarks; sub a by b; } a1; sub x by y; } ss01; feature ss02 { lookup a1; } ss02;',
  ],
  [
    'all alternates',
    'feature aalt { feature smcp; feature salt; sub z by y; } aalt; feature smcp { sub [a b] by [a.sc b.sc]; } smcp; feature salt { sub a from [a.alt1 a.alt2]; } salt;',
  ],
  ['by one among those by several', 'feature fina { sub a by b; sub c by d e; sub f by g; } fina;'],
  [
    'several kinds in a row',
    'feature test { sub a by b; sub c d by e; sub f by g; sub h from [i j]; pos a 10; } test;',
  ],
  ['classes in classes', '@a = [a b]; @b = [@a c]; @c = @b; feature test { sub @c by [x y z]; } test;'],
  ['ranges', 'feature test { sub [A-C] by [a.sc-c.sc]; sub [foo.001-foo.003] by [a b c]; } test;'],
  ['a glyph with a hyphen', 'feature test { sub a-cy by a; } test;'],
  ['characters by number', 'feature test { sub \\1 by \\2; sub [\\2-\\3] by a; } test;'],
  ['names of glyphs that are words', 'feature test { sub \\a by \\b; } test;'],
  ['values by name', 'valueRecordDef -12 K; valueRecordDef <1 2 3 4> L; feature kern { pos A <K>; pos B <L>; } kern;'],
  [
    'anchors by name',
    'anchorDef 120 500 TOP; anchorDef 10 20 contourpoint 5 P; markClass acutecomb <anchor TOP> @T; feature mark { pos base a <anchor P> mark @T; } mark;',
  ],
  [
    'devices',
    'feature kern { pos A <0 0 -20 0 <device NULL> <device NULL> <device 11 -1, 12 -2, 14 1> <device NULL>>; } kern;',
  ],
  [
    'anchors with devices',
    'markClass acutecomb <anchor 5 6 <device 11 1> <device NULL>> @T; feature mark { pos base a <anchor 1 2> mark @T; } mark;',
  ],
  [
    'anchors that are given twice',
    'markClass acutecomb <anchor 0 0> @T; feature mark { pos base a <anchor 1 2> mark @T; pos base [a b] <anchor 3 4> mark @T; pos ligature f_i <anchor 1 1> mark @T ligComponent <anchor 2 2> mark @T; pos ligature f_i <anchor 3 3> mark @T ligComponent <anchor 4 4> mark @T; } mark;',
  ],
  [
    'all alternates of rules with a context',
    "lookup other { sub a by a.alt1; sub b by b.sc; } other; feature aalt { feature calt; } aalt; feature calt { sub a' lookup other x; sub c' y by c.sc; } calt;",
  ],
  ['vertical', 'feature vkrn { pos a b -30; } vkrn;'],
  [
    'extension',
    'feature liga useExtension { sub f f by f_f; } liga; lookup x useExtension { sub a by b; } x; feature ss01 { lookup x; } ss01;',
  ],
  [
    'glyph definitions',
    'table GDEF { GlyphClassDef [a b], [f_i], [acutecomb], ; LigatureCaretByPos f_i 200; LigatureCaretByPos f_f_i 150 320; LigatureCaretByIndex f_f 3 5; Attach a 3 7; } GDEF; feature test { sub a by b; } test;',
  ],
  ['substitution to nothing', 'feature test { sub a by NULL; sub b by c d; } test;'],
  ['comments and odd spacing', '# one\nfeature  test{sub a # two\n by\tb ;}test ;# three'],
  [
    'contexts of glyphs alone',
    "feature calt { sub a b' c by b.sc; sub a c' d by c.sc; sub x b' c by y; sub a b' x by z; } calt;",
  ],
  [
    'contexts of classes',
    "@L = [a b c]; @M = [x y z]; feature calt { sub @L d' @M by d.sc; sub @M d' @L by e; sub @L e' @M by e.sc; sub @M e' @M @L by f; } calt;",
  ],
  [
    'parameters of size',
    'feature size { parameters 10.0 3 80 139; sizemenuname "Text"; sizemenuname 1 "Text"; } size; feature test { sub a by b; } test;',
  ],
  [
    'names of a set',
    'feature ss01 { featureNames { name "Round"; name 3 1 0x407 "Rund"; name 1 "Round"; }; sub a by a.alt1; } ss01;',
  ],
  [
    'names of a variant',
    'feature cv01 { cvParameters { FeatUILabelNameID { name "Tail"; }; SampleTextNameID { name "a"; }; Character 0x61; Character 98; }; sub a by a.alt1; } cv01;',
  ],
  ['text for others', 'anon DATA {\nanything <at> all\n} DATA;\nfeature test { sub a by b; } test;'],
];
