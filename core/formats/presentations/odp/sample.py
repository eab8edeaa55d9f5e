"""Writes a presentation with Debian's python3-odf, for the tests of the reader: sample.py OUT PICTURE."""
import sys

from odf import dc
from odf.draw import CustomShape, EnhancedGeometry, Frame, Image, Object, Page, TextBox
from odf.namespaces import PRESENTATIONNS
from odf.opendocument import OpenDocumentPresentation
from odf.presentation import Notes
from odf.style import DrawingPageProperties, MasterPage, PageLayout, PageLayoutProperties, Style, TextProperties
from odf.svg import Desc
from odf.table import CoveredTableCell, Table, TableCell, TableColumn, TableRow
from odf.text import A, LineBreak, List, ListItem, P, Span

out, picture = sys.argv[1:3]
doc = OpenDocumentPresentation()
doc.meta.addElement(dc.Title(text="Gauges of the bay"))
doc.meta.addElement(dc.Language(text="en-GB"))

layout = PageLayout(name="Layout")
layout.addElement(PageLayoutProperties(pagewidth="10in", pageheight="7.5in", printorientation="landscape"))
doc.automaticstyles.addElement(layout)
master = MasterPage(name="Default", pagelayoutname="Layout")
doc.masterstyles.addElement(master)
bold = Style(name="Bold", family="text")
bold.addElement(TextProperties(fontweight="bold"))
hidden = Style(name="Hidden", family="drawing-page")
hidden.addElement(DrawingPageProperties(visibility="hidden", fill="solid", fillcolor="#102030"))
graphic = Style(name="Graphic", family="graphic")
for style in (bold, hidden, graphic):
    doc.automaticstyles.addElement(style)


def frame(page, content, presentationclass=None, **attributes):
    held = Frame(stylename=graphic, width="8in", height="2in", x="1in", y="1in", **attributes)
    if presentationclass:
        held.setAttrNS(PRESENTATIONNS, "class", presentationclass)
    held.addElement(content)
    page.addElement(held)
    return held


def box(*children):
    held = TextBox()
    for one in children:
        held.addElement(one)
    return held


first = Page(name="Opening", masterpagename=master)
doc.presentation.addElement(first)
frame(first, box(P(text="Gauges of the bay")), presentationclass="title")
frame(first, box(P(text="Station")), presentationclass="subtitle")

second = Page(name="Gauges", masterpagename=master)
doc.presentation.addElement(second)
frame(second, box(P(text="How to read them")), presentationclass="title")
inner = List()
item = ListItem()
item.addElement(P(text="on the staff"))
inner.addElement(item)
outer = List()
item = ListItem()
line = P(text="Every ")
line.addElement(Span(stylename=bold, text="ten"))
line.addText(" minutes,")
line.addElement(LineBreak())
line.addText("see ")
line.addElement(A(href="#Figures", text="the figures"))
item.addElement(line)
item.addElement(inner)
outer.addElement(item)
item = ListItem()
web = P()
web.addElement(A(href="https://example.org/gauges", text="the page"))
item.addElement(web)
outer.addElement(item)
frame(second, box(outer), presentationclass="outline")
notes = Notes()
held = Frame(width="6in", height="3in", x="1in", y="5in")
held.setAttrNS(PRESENTATIONNS, "class", "notes")
held.addElement(box(P(text="Say it slowly."), P(text="Twice.")))
notes.addElement(held)
second.addElement(notes)

third = Page(name="Figures", masterpagename=master, stylename=hidden)
doc.presentation.addElement(third)
table = Table()
table.addElement(TableColumn(numbercolumnsrepeated="2"))
for cells in (("Gauge", "Level"), ("North", "2.4"), ("both wide",)):
    row = TableRow()
    for cell in cells:
        made = TableCell(**({"numbercolumnsspanned": "2"} if len(cells) == 1 else {}))
        made.addElement(P(text=cell))
        row.addElement(made)
    if len(cells) == 1:
        row.addElement(CoveredTableCell())
    table.addElement(row)
frame(third, table, presentationclass="table")
image = frame(third, Image(href=doc.addPicture(picture)), name="Quay")
image.addElement(Desc(text="The quay"))
shape = CustomShape(stylename=graphic, width="2in", height="1in", x="1in", y="5in", name="Cloud")
shape.addElement(P(text="in a shape"))
shape.addElement(EnhancedGeometry(type="ellipse"))
third.addElement(shape)
empty = CustomShape(stylename=graphic, width="2in", height="1in", x="4in", y="5in", name="Arrow")
empty.addElement(EnhancedGeometry(type="right-arrow"))
third.addElement(empty)
frame(third, Object(href="./Object 1"), name="Chart")
doc.save(out)
