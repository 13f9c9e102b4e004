#!/usr/bin/python3
"""Makes the application's faces from Debian's Inter: tabular figures by default (Qt 6.4 cannot switch font features on),
only the characters the application shows, under a name of their own. Usage: make-fonts.py SOURCE_DIR OUT_DIR"""
import pathlib
import sys

from fontTools import subset
from fontTools.ttLib import TTFont

FAMILY = "Poquito Sans"
FACES = {"Regular": 400, "Medium": 500, "SemiBold": 600}
RANGES = [(0x20, 0x7E), (0xA0, 0x17F), (0x384, 0x3CE), (0x2010, 0x203A), (0x2070, 0x209C), (0x20AC, 0x20AC),
          (0x2190, 0x2199), (0x2200, 0x2265), (0x25A0, 0x25FF), (0x2713, 0x2713)]


def tabular(font):
    """Glyphs that the font's own `tnum` feature puts in place of others."""
    gsub = font["GSUB"].table
    indices = {i for record in gsub.FeatureList.FeatureRecord if record.FeatureTag == "tnum"
               for i in record.Feature.LookupListIndex}
    mapping = {}
    for i in indices:
        for table in gsub.LookupList.Lookup[i].SubTable:
            mapping.update(getattr(getattr(table, "ExtSubTable", table), "mapping", {}))
    return mapping


def make(source, target, style):
    font = TTFont(source)
    figures = tabular(font)
    for table in font["cmap"].tables:
        for code, name in table.cmap.items():
            if name in figures and chr(code).isdigit():
                table.cmap[code] = figures[name]
    for record in font["name"].names:
        if record.nameID in (1, 16):
            record.string = FAMILY
        elif record.nameID in (2, 17):
            record.string = style
        elif record.nameID in (3, 4):
            record.string = f"{FAMILY} {style}"
        elif record.nameID == 6:
            record.string = f"PoquitoSans-{style}"
    options = subset.Options(name_IDs=["*"], layout_features=["kern", "mark", "mkmk", "ccmp", "locl"])
    subsetter = subset.Subsetter(options)
    subsetter.populate(unicodes=[c for first, last in RANGES for c in range(first, last + 1)])
    subsetter.subset(font)
    font.save(target)


source_dir, out_dir = map(pathlib.Path, sys.argv[1:3])
out_dir.mkdir(parents=True, exist_ok=True)
for face in FACES:
    make(source_dir / f"Inter-{face}.otf", out_dir / f"PoquitoSans-{face}.otf", face)
