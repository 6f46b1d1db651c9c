"""What layout tables mean, in a form that does not depend on how they are written: JSON for tests.

Input (JSON on standard input): {"glyphs": [...], "cases": [{"text": feature text, "tables": {"GSUB": base64, ...}}]}.
For each case the general Python font library compiles the text, and both its tables and those given are told.
"""

import base64
import io
import json
import sys

from fontTools.feaLib.builder import addOpenTypeFeaturesFromString
from fontTools.feaLib.error import FeatureLibError
from fontTools.ttLib import TTFont, newTable


def bare(glyphs):
    font = TTFont()
    font.setGlyphOrder(glyphs)
    font["maxp"] = newTable("maxp")
    font["maxp"].numGlyphs = len(glyphs)
    font["maxp"].tableVersion = 0x00005000
    font["cmap"] = newTable("cmap")
    font["cmap"].tableVersion = 0
    font["cmap"].tables = []
    font["name"] = newTable("name")
    font["name"].names = []
    return font


def value(v):
    if v is None:
        return [0, 0, 0, 0]
    out = [getattr(v, k, 0) or 0 for k in ("XPlacement", "YPlacement", "XAdvance", "YAdvance")]
    for k in ("XPlaDevice", "YPlaDevice", "XAdvDevice", "YAdvDevice"):
        d = getattr(v, k, None)
        if d:
            out.append([k, d.StartSize, list(d.DeltaValue)])
    return out


def anchor(a):
    if a is None:
        return None
    out = [a.XCoordinate, a.YCoordinate]
    if getattr(a, "AnchorPoint", None) is not None and a.Format == 2:
        out.append(["point", a.AnchorPoint])
    for k in ("XDeviceTable", "YDeviceTable"):
        d = getattr(a, k, None)
        if d:
            out.append([k, d.StartSize, list(d.DeltaValue)])
    return out


class Meaning:
    def __init__(self, font, tag):
        self.font = font
        self.table = font[tag].table
        self.glyphs = font.getGlyphOrder()
        self.tag = tag

    def all(self):
        t = self.table
        if t.ScriptList is None:
            return {}
        out = {}
        for s in t.ScriptList.ScriptRecord:
            systems = [("dflt", s.Script.DefaultLangSys)] + [(r.LangSysTag, r.LangSys) for r in s.Script.LangSysRecord]
            for name, system in systems:
                if system is None:
                    continue
                own = {}
                for i in system.FeatureIndex:
                    f = t.FeatureList.FeatureRecord[i]
                    own[f.FeatureTag] = [self.lookup(k) for k in sorted(f.Feature.LookupListIndex)]
                if system.ReqFeatureIndex != 0xFFFF:
                    f = t.FeatureList.FeatureRecord[system.ReqFeatureIndex]
                    own["required " + f.FeatureTag] = [self.lookup(k) for k in sorted(f.Feature.LookupListIndex)]
                if own:
                    out[s.ScriptTag + " " + name] = own
        return out

    def lookup(self, index):
        l = self.table.LookupList.Lookup[index]
        subs = []
        kind = l.LookupType
        for st in l.SubTable:
            if self.tag == "GSUB" and st.LookupType == 7 or self.tag == "GPOS" and st.LookupType == 9:
                kind = st.ExtSubTable.LookupType
                st = st.ExtSubTable
            subs.append(st)
        flag = {"bits": l.LookupFlag & 0x0F}
        if l.LookupFlag & 0x10:
            flag["set"] = sorted(self.font["GDEF"].table.MarkGlyphSetsDef.Coverage[l.MarkFilteringSet].glyphs)
        if l.LookupFlag >> 8:
            classes = self.font["GDEF"].table.MarkAttachClassDef.classDefs
            flag["class"] = sorted(g for g, c in classes.items() if c == l.LookupFlag >> 8)
        return [self.kind(kind), flag, self.rules(kind, subs)]

    def kind(self, kind):
        names = {
            "GSUB": {1: "single", 2: "multiple", 3: "alternate", 4: "ligature", 5: "context", 6: "context", 8: "reverse"},
            "GPOS": {1: "single", 2: "pair", 3: "cursive", 4: "base", 5: "parts", 6: "mark", 7: "context", 8: "context"},
        }
        return names[self.tag][kind]

    def rules(self, kind, subs):
        name = self.kind(kind)
        if self.tag == "GSUB":
            if name == "single":
                return self.merged(dict(st.mapping) for st in subs)
            if name == "multiple":
                return self.merged({k: list(v) for k, v in st.mapping.items()} for st in subs)
            if name == "alternate":
                return self.merged({k: list(v) for k, v in st.alternates.items()} for st in subs)
            if name == "ligature":
                out = {}
                for st in subs:
                    for first, ligs in st.ligatures.items():
                        for lig in ligs:
                            out.setdefault(" ".join([first] + lig.Component), lig.LigGlyph)
                return out
            if name == "reverse":
                return [
                    [
                        [sorted(c.glyphs) for c in st.BacktrackCoverage],
                        [sorted(c.glyphs) for c in st.LookAheadCoverage],
                        dict(zip(st.Coverage.glyphs, st.Substitute)),
                    ]
                    for st in subs
                ]
        else:
            if name == "single":
                out = {}
                for st in subs:
                    for i, g in enumerate(st.Coverage.glyphs):
                        v = st.Value if st.Format == 1 else st.Value[i]
                        out.setdefault(g, value(v))
                return {g: v for g, v in out.items() if v != [0, 0, 0, 0]}
            if name == "pair":
                return self.pairs(subs)
            if name == "cursive":
                out = {}
                for st in subs:
                    for g, r in zip(st.Coverage.glyphs, st.EntryExitRecord):
                        out.setdefault(g, [anchor(r.EntryAnchor), anchor(r.ExitAnchor)])
                return out
            if name in ("base", "mark", "parts"):
                return self.marks(subs, name)
        return self.contexts(subs)

    def merged(self, maps):
        out = {}
        for m in maps:
            for k, v in m.items():
                out.setdefault(k, v)
        return out

    def pairs(self, subs):
        out = {}
        for st in subs:
            if st.Format == 1:
                for g, s in zip(st.Coverage.glyphs, st.PairSet):
                    for r in s.PairValueRecord:
                        out.setdefault((g, r.SecondGlyph), [value(r.Value1), value(r.Value2)])
            else:
                for g in st.Coverage.glyphs:
                    row = st.Class1Record[st.ClassDef1.classDefs.get(g, 0)].Class2Record
                    for h in self.glyphs:
                        r = row[st.ClassDef2.classDefs.get(h, 0)]
                        out.setdefault((g, h), [value(r.Value1), value(r.Value2)])
        nothing = [[0, 0, 0, 0], [0, 0, 0, 0]]
        return {" ".join(k): v for k, v in sorted(out.items()) if v != nothing}

    def marks(self, subs, name):
        out = {}
        for st in subs:
            marks = st.MarkCoverage if name != "mark" else st.Mark1Coverage
            array = st.MarkArray if name != "mark" else st.Mark1Array
            for g, r in zip(marks.glyphs, array.MarkRecord):
                if name == "base":
                    for b, rec in zip(st.BaseCoverage.glyphs, st.BaseArray.BaseRecord):
                        a = rec.BaseAnchor[r.Class]
                        if a:
                            out.setdefault(b + " " + g, [anchor(a), anchor(r.MarkAnchor)])
                elif name == "mark":
                    for b, rec in zip(st.Mark2Coverage.glyphs, st.Mark2Array.Mark2Record):
                        a = rec.Mark2Anchor[r.Class]
                        if a:
                            out.setdefault(b + " " + g, [anchor(a), anchor(r.MarkAnchor)])
                else:
                    for b, rec in zip(st.LigatureCoverage.glyphs, st.LigatureArray.LigatureAttach):
                        for i, part in enumerate(rec.ComponentRecord):
                            a = part.LigatureAnchor[r.Class]
                            if a:
                                out.setdefault("%s %d %s" % (b, i, g), [anchor(a), anchor(r.MarkAnchor)])
        return out

    def contexts(self, subs):
        """For each glyph that may begin: the rules that are tried, in order."""
        out = {}
        for st in subs:
            for first, back, rest, ahead, calls in self.expanded(st):
                for g in first:
                    out.setdefault(g, []).append([back, rest, ahead, self.where(calls, [[g]] + rest)])
        return out

    def where(self, calls, places):
        """Calls with what they do to the glyphs at their places: of a lookup of single replacements nothing else is met."""
        out = []
        for i, (at, (kind, flag, rules)) in enumerate(calls):
            if kind == "single" and i == 0 and at < len(places) and isinstance(rules, dict):
                rules = {g: to for g, to in rules.items() if g in places[at]}
            out.append([at, [kind, flag, rules]])
        return out

    def calls(self, records):
        return [[r.SequenceIndex, self.lookup(r.LookupListIndex)] for r in (records or [])]

    def expanded(self, st):
        chained = "Chain" in type(st).__name__
        pos = "Pos" in type(st).__name__
        records = "PosLookupRecord" if pos else "SubstLookupRecord"
        if st.Format == 3:
            if chained:
                sets = [sorted(c.glyphs) for c in st.InputCoverage]
                back = [sorted(c.glyphs) for c in st.BacktrackCoverage]
                ahead = [sorted(c.glyphs) for c in st.LookAheadCoverage]
            else:
                sets, back, ahead = [sorted(c.glyphs) for c in st.Coverage], [], []
            yield sets[0], back, sets[1:], ahead, self.calls(getattr(st, records))
            return
        if st.Format == 1:
            names = [n for n in dir(st) if n.endswith("RuleSet")]
            for g, ruleset in zip(st.Coverage.glyphs, getattr(st, names[0])):
                if ruleset is None:
                    continue
                inner = [n for n in dir(ruleset) if n.endswith("Rule") and not n.startswith("_")]
                for r in getattr(ruleset, inner[0]):
                    back = [[x] for x in getattr(r, "Backtrack", None) or []]
                    ahead = [[x] for x in getattr(r, "LookAhead", None) or []]
                    yield [g], back, [[x] for x in r.Input], ahead, self.calls(getattr(r, records))
            return
        if chained:
            bc, ic, ac = st.BacktrackClassDef.classDefs, st.InputClassDef.classDefs, st.LookAheadClassDef.classDefs
        else:
            bc, ic, ac = {}, st.ClassDef.classDefs, {}
        members = lambda classes, n: sorted(g for g in self.glyphs if classes.get(g, 0) == n)
        names = [n for n in dir(st) if n.endswith("ClassSet")]
        for n, ruleset in enumerate(getattr(st, names[0])):
            if ruleset is None:
                continue
            first = [g for g in st.Coverage.glyphs if ic.get(g, 0) == n]
            inner = [k for k in dir(ruleset) if k.endswith("ClassRule") and not k.startswith("_")]
            for r in getattr(ruleset, inner[0]):
                back = [members(bc, x) for x in getattr(r, "Backtrack", None) or []]
                ahead = [members(ac, x) for x in getattr(r, "LookAhead", None) or []]
                rest = [members(ic, x) for x in (r.Input if chained else r.Class)]
                yield first, back, rest, ahead, self.calls(getattr(r, records))


def gdef(font):
    if "GDEF" not in font:
        return {}
    t = font["GDEF"].table
    out = {}
    if getattr(t, "LigCaretList", None):
        out["carets"] = {
            g: [[c.Format, getattr(c, "Coordinate", None), getattr(c, "CaretValuePoint", None)] for c in l.CaretValue]
            for g, l in zip(t.LigCaretList.Coverage.glyphs, t.LigCaretList.LigGlyph)
        }
    if getattr(t, "AttachList", None):
        out["attach"] = {
            g: list(p.PointIndex) for g, p in zip(t.AttachList.Coverage.glyphs, t.AttachList.AttachPoint)
        }
    return out


def meaning(font):
    out = {tag: Meaning(font, tag).all() for tag in ("GSUB", "GPOS") if tag in font}
    out = {tag: m for tag, m in out.items() if m}
    g = gdef(font)
    if g:
        out["GDEF"] = g
    return out


def ours(glyphs, tables):
    font = bare(glyphs)
    for tag in ("GDEF", "GSUB", "GPOS"):
        if tag in tables:
            t = newTable(tag)
            t.decompile(base64.b64decode(tables[tag]), font)
            t.ensureDecompiled(recurse=True) if hasattr(t, "ensureDecompiled") else None
            font[tag] = t
    return meaning(font)


def theirs(glyphs, text):
    font = bare(glyphs)
    try:
        addOpenTypeFeaturesFromString(font, text)
    except (FeatureLibError, Exception) as error:  # noqa: B014 - whatever it refuses is told
        return {"refused": str(error)}
    # Through bytes, so that what is told is what a shaper reads.
    again = bare(glyphs)
    for tag in ("GDEF", "GSUB", "GPOS"):
        if tag in font:
            t = newTable(tag)
            t.decompile(font[tag].compile(font), again)
            again[tag] = t
    return meaning(again)


if __name__ == "__main__":
    asked = json.load(sys.stdin)
    glyphs = asked["glyphs"]
    json.dump(
        [{"ours": ours(glyphs, c["tables"]), "theirs": theirs(glyphs, c["text"])} for c in asked["cases"]], sys.stdout
    )
