"""Reads a font file whole with the general Python font library: every glyph drawn, character map, names, kerning; prints milliseconds."""
import sys
import time

from fontTools.pens.recordingPen import RecordingPen
from fontTools.ttLib import TTFont

started = time.perf_counter()
font = TTFont(sys.argv[1])
glyphs = font.getGlyphSet()
for name in font.getGlyphOrder():
    glyphs[name].draw(RecordingPen())
font.getBestCmap()
font["name"].names
if "GPOS" in font:
    font["GPOS"].table
print((time.perf_counter() - started) * 1000)
