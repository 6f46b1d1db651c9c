"""The same work by the general Python font library: parse a UFO, convert curves, compile, write. Prints milliseconds."""
import sys, time
from fontTools.ufoLib import UFOReader
from fontTools.pens.recordingPen import RecordingPen
from fontTools.pens.cu2quPen import Cu2QuPen
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.pens.pointPen import PointToSegmentPen
from fontTools.fontBuilder import FontBuilder
src,out=sys.argv[1:3]
t0=time.time()
r=UFOReader(src)
gs=r.getGlyphSet()
names=list(gs.keys())
order=['.notdef']+[n for n in names if n!='.notdef']
class Info: pass
info=Info(); r.readInfo(info)
upm=info.unitsPerEm
class G:
    pass
glyphs={}
for n in names:
    g=G(); pen=RecordingPen()
    gs.readGlyph(n,g,PointToSegmentPen(pen))
    g.rec=pen; glyphs[n]=g
    g.draw=pen.replay
cmap={}
for n in order:
    if n in glyphs:
        for u in getattr(glyphs[n],'unicodes',[]): cmap.setdefault(u,n)
fb=FontBuilder(upm,isTTF=True)
fb.setupGlyphOrder(order); fb.setupCharacterMap(cmap)
metrics={}
tt={}
for n in order:
    pen=TTGlyphPen(glyphs)
    if n in glyphs: glyphs[n].rec.replay(Cu2QuPen(pen,max_err=0.5,reverse_direction=True))
    tt[n]=pen.glyph()
fb.setupGlyf(tt)
fb.setupHorizontalMetrics({n:(round(getattr(glyphs[n],'width',0)) if n in glyphs else upm//2,0) for n in order})
fb.setupHorizontalHeader(ascent=800,descent=-200)
fb.setupNameTable({'familyName':'Ref','styleName':'Regular'})
fb.setupOS2(); fb.setupPost()
fb.save(out)
print('%.0f'%((time.time()-t0)*1000))
