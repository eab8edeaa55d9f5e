"""Writes a text document with Debian's python3-odf, for the tests of the reader: sample.py OUT PICTURE."""
import sys

from odf.opendocument import OpenDocumentText
from odf.style import ParagraphProperties, Style, TextProperties
from odf.table import CoveredTableCell, Table, TableCell, TableColumn, TableHeaderRows, TableRow
from odf.text import A, H, LineBreak, List, ListItem, ListLevelStyleBullet, ListLevelStyleNumber, ListStyle, Note, NoteBody, NoteCitation, P, S, Span
from odf.draw import Frame, Image
from odf.svg import Desc
from odf import dc

out, picture = sys.argv[1:3]
doc = OpenDocumentText()
doc.meta.addElement(dc.Title(text="Field handbook"))
doc.meta.addElement(dc.Language(text="en-GB"))

bold = Style(name="Bold", family="text")
bold.addElement(TextProperties(fontweight="bold"))
mono = Style(name="Mono", family="text")
mono.addElement(TextProperties(fontname="Courier New"))
centred = Style(name="Centred", family="paragraph")
centred.addElement(ParagraphProperties(textalign="center"))
for style in (bold, mono, centred):
    doc.automaticstyles.addElement(style)
numbers = ListStyle(name="Numbers")
numbers.addElement(ListLevelStyleNumber(level="1", numformat="1", numsuffix="."))
bullets = ListStyle(name="Bullets")
bullets.addElement(ListLevelStyleBullet(level="1", bulletchar="•"))
bullets.addElement(ListLevelStyleBullet(level="2", bulletchar="–"))
doc.automaticstyles.addElement(numbers)
doc.automaticstyles.addElement(bullets)

text = doc.text
text.addElement(H(outlinelevel=1, text="Gauges"))
text.addElement(H(outlinelevel=2, text="At the quay"))
p = P(text="The gauge is ")
p.addElement(Span(stylename=bold, text="read"))
p.addText(" every")
p.addElement(S(c=1))
p.addText("ten minutes")
note = Note(id="n1", noteclass="footnote")
note.addElement(NoteCitation(text="1"))
body = NoteBody()
body.addElement(P(text="Log book, page 3."))
note.addElement(body)
p.addElement(note)
p.addText("; see ")
p.addElement(A(type="simple", href="https://example.org/gauge", text="the page"))
p.addText(".")
text.addElement(p)
q = P(stylename=centred, text="one line")
q.addElement(LineBreak())
q.addText("and another")
text.addElement(q)

items = List(stylename=bullets)
for name, inner in (("North", ["quay", "bar"]), ("South", [])):
    item = ListItem()
    item.addElement(P(text=name))
    if inner:
        nested = List()
        for word in inner:
            deeper = ListItem()
            deeper.addElement(P(text=word))
            nested.addElement(deeper)
        item.addElement(nested)
    items.addElement(item)
text.addElement(items)
steps = List(stylename=numbers)
for word in ("Open", "Read"):
    item = ListItem()
    item.addElement(P(text=word))
    steps.addElement(item)
text.addElement(steps)

table = Table(name="Levels")
table.addElement(TableColumn(numbercolumnsrepeated=3))
head = TableHeaderRows()
row = TableRow()
for word in ("Gauge", "High", "Low"):
    cell = TableCell()
    cell.addElement(P(text=word))
    row.addElement(cell)
head.addElement(row)
table.addElement(head)
row = TableRow()
cell = TableCell(numberrowsspanned=2)
cell.addElement(P(text="North"))
row.addElement(cell)
cell = TableCell(numbercolumnsspanned=2)
cell.addElement(P(text="2.4"))
row.addElement(cell)
row.addElement(CoveredTableCell())
table.addElement(row)
row = TableRow()
row.addElement(CoveredTableCell())
for word in ("2.1", "0.3"):
    cell = TableCell()
    cell.addElement(P(text=word))
    row.addElement(cell)
table.addElement(row)
text.addElement(table)

p = P()
frame = Frame(width="8cm", height="6cm", anchortype="as-char")
frame.addElement(Image(href=doc.addPicture(picture)))
frame.addElement(Desc(text="The quay"))
p.addElement(frame)
text.addElement(p)
p = P()
p.addElement(Span(stylename=mono, text="read --every 10"))
text.addElement(p)
doc.save(out)
