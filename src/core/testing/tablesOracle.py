"""What tables of single facts mean: BASE, STAT, head, hhea, OS/2, vhea as JSON for tests.

Input (JSON on standard input): {"bare": font without rules (base64), "cases": [{"text": feature text, "font": base64}]}.
For each case the general Python font library adds the text to the bare font, and both fonts are told.
"""

import base64
import io
import json
import sys

from fontTools.feaLib.builder import addOpenTypeFeaturesFromString
from fontTools.ttLib import TTFont, newTable


def opened(data):
    return TTFont(io.BytesIO(base64.b64decode(data)))


def axis(a):
    if a is None:
        return None
    tags = list(a.BaseTagList.BaselineTag)
    out = {}
    for r in a.BaseScriptList.BaseScriptRecord:
        v = r.BaseScript.BaseValues
        out[r.BaseScriptTag] = [tags[v.DefaultIndex], {t: c.Coordinate for t, c in zip(tags, v.BaseCoord)}]
    return out


def style(font):
    t = font["STAT"].table
    name = lambda i: sorted((n.platformID, n.langID, n.toUnicode()) for n in font["name"].names if n.nameID == i)
    axes = t.DesignAxisRecord.Axis
    values = []
    for v in t.AxisValueArray.AxisValue if t.AxisValueArray else []:
        if v.Format == 4:
            at = {axes[r.AxisIndex].AxisTag: r.Value for r in v.AxisValueRecord}
        elif v.Format == 2:
            at = {axes[v.AxisIndex].AxisTag: [v.NominalValue, v.RangeMinValue, v.RangeMaxValue]}
        else:
            at = {axes[v.AxisIndex].AxisTag: [v.Value, getattr(v, "LinkedValue", None)]}
        values.append([at, v.Flags, name(v.ValueNameID)])
    # The library puts places on several axes first.
    return {
        "axes": [[a.AxisTag, a.AxisOrdering, name(a.AxisNameID)] for a in axes],
        "values": sorted(values, key=json.dumps),
        "fallback": name(t.ElidedFallbackNameID),
    }


FIELDS = {
    "head": ["fontRevision"],
    "hhea": ["ascent", "descent", "lineGap"],
    "OS/2": [
        "fsType", "usWeightClass", "usWidthClass", "sTypoAscender", "sTypoDescender", "sTypoLineGap", "usWinAscent",
        "usWinDescent", "sxHeight", "sCapHeight", "achVendID", "usLowerOpticalPointSize", "usUpperOpticalPointSize",
        "ulCodePageRange1", "ulCodePageRange2", "ulUnicodeRange1", "ulUnicodeRange2", "ulUnicodeRange3",
        "ulUnicodeRange4",
    ],
    "vhea": ["ascent", "descent", "lineGap"],
}


def meaning(font, tags):
    out = {}
    for tag, fields in FIELDS.items():
        if tag in font and tag in tags:
            out[tag] = {f: getattr(font[tag], f, None) for f in fields}
    if "OS/2" in out:
        out["OS/2"]["panose"] = sorted(vars(font["OS/2"].panose).items())
    if "BASE" in font:
        out["BASE"] = [axis(font["BASE"].table.HorizAxis), axis(font["BASE"].table.VertAxis)]
    if "STAT" in font:
        out["STAT"] = style(font)
    if "vmtx" in font and "vmtx" in tags:
        out["vmtx"] = dict(font["vmtx"].metrics)
    return out


def theirs(bare, text, tags):
    font = opened(bare)
    if "vhea" in tags:
        t = font["vhea"] = newTable("vhea")
        for field in (
            "ascent descent lineGap advanceHeightMax minTopSideBearing minBottomSideBearing yMaxExtent caretSlopeRise "
            "caretSlopeRun caretOffset reserved1 reserved2 reserved3 reserved4 metricDataFormat numberOfVMetrics"
        ).split():
            setattr(t, field, 0)
        t.tableVersion = 0x00011000
    addOpenTypeFeaturesFromString(font, text)
    return meaning(font, tags)


if __name__ == "__main__":
    asked = json.load(sys.stdin)
    out = []
    for case in asked["cases"]:
        font = opened(case["font"])
        out.append(
            {
                "ours": meaning(font, case["tags"]),
                "theirs": theirs(asked["bare"], case["text"], case["tags"]) if case["compare"] else None,
            }
        )
    json.dump(out, sys.stdout)
