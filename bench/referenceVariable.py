"""The same variable font by the general Python font library: parse the UFOs of a designspace, convert curves alike in all masters, compile each,
merge them. Prints milliseconds after its imports."""
import sys, time, os
from fontTools.ufoLib import UFOReader
from fontTools.pens.recordingPen import RecordingPen
from fontTools.pens.pointPen import PointToSegmentPen
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.cu2qu import curves_to_quadratic
from fontTools.fontBuilder import FontBuilder
from fontTools.designspaceLib import DesignSpaceDocument
from fontTools import varLib

space, out = sys.argv[1:3]
started = time.time()
doc = DesignSpaceDocument.fromfile(space)
folder = os.path.dirname(space)


class Glyph:
    pass


masters = []
for source in doc.sources:
    reader = UFOReader(os.path.join(folder, source.filename))
    glyphs, drawn = reader.getGlyphSet(), {}
    for name in glyphs.keys():
        g, pen = Glyph(), RecordingPen()
        glyphs.readGlyph(name, g, PointToSegmentPen(pen))
        g.value = pen.value
        drawn[name] = g
    info = Glyph()
    reader.readInfo(info)
    masters.append((drawn, info))
order = ['.notdef'] + [n for n in masters[0][0] if n != '.notdef']
tables = [{} for _ in masters]
for name in order:
    all_ = [m[0].get(name) for m in masters]
    pens = [TTGlyphPen(None) for _ in masters]
    if all(all_):
        at = [None] * len(masters)
        for steps in zip(*[g.value for g in all_]):
            op = steps[0][0]
            if op == 'curveTo':
                curves = [[at[i]] + list(s[1]) for i, s in enumerate(steps)]
                for i, q in enumerate(curves_to_quadratic(curves, [0.5] * len(masters))):
                    pens[i].qCurveTo(*q[1:])
            else:
                for pen, s in zip(pens, steps):
                    getattr(pen, op)(*s[1])
            for i, s in enumerate(steps):
                if s[1]:
                    at[i] = s[1][-1]
    for i, pen in enumerate(pens):
        tables[i][name] = pen.glyph()
for i, (source, (drawn, info)) in enumerate(zip(doc.sources, masters)):
    builder = FontBuilder(info.unitsPerEm, isTTF=True)
    builder.setupGlyphOrder(order)
    characters = {}
    for n in order:
        for u in getattr(drawn.get(n), 'unicodes', []):
            characters.setdefault(u, n)
    builder.setupCharacterMap(characters)
    builder.setupGlyf(tables[i])
    builder.setupHorizontalMetrics({n: (round(getattr(drawn.get(n), 'width', 500)), 0) for n in order})
    builder.setupHorizontalHeader(ascent=800, descent=-200)
    builder.setupNameTable({'familyName': 'Ref', 'styleName': 'Regular'})
    builder.setupOS2()
    builder.setupPost()
    source.font = builder.font
varLib.build(doc)[0].save(out)
print('%.0f' % ((time.time() - started) * 1000))
