"""Reads a presentation with Debian's python3-odf and says what it found, for the tests of the writer: check.py FILE."""
import json
import sys

from odf import teletype
from odf.draw import Frame, Image, Page
from odf.namespaces import PRESENTATIONNS
from odf.opendocument import load
from odf.presentation import Notes
from odf.table import Table, TableRow
from odf.text import A, List

doc = load(sys.argv[1])
pages = []
for page in doc.getElementsByType(Page):
    frames = [frame for frame in page.getElementsByType(Frame) if frame.parentNode is page]
    notes = page.getElementsByType(Notes)
    pages.append({
        "name": page.getAttribute("name"),
        "texts": [teletype.extractText(frame) for frame in frames],
        "classes": [frame.getAttrNS(PRESENTATIONNS, "class") for frame in frames],
        "lists": len(page.getElementsByType(List)),
        "links": [link.getAttribute("href") for link in page.getElementsByType(A)],
        "rows": [len(table.getElementsByType(TableRow)) for table in page.getElementsByType(Table)],
        "pictures": [image.getAttribute("href") for image in page.getElementsByType(Image)],
        "notes": teletype.extractText(notes[0]) if notes else "",
    })
print(json.dumps({"mimetype": doc.mimetype, "pages": pages}))
