"""Writes a presentation with python3-odf from a description in JSON: a page for each entry, elements as [module.Class, attributes, children]."""
import importlib
import json
import sys

from odf import draw, style
from odf.opendocument import OpenDocumentPresentation


styles = {}


def build(node):
    name, attributes, *children = node
    module, kind = name.split(".")
    # Shapes want the style itself, which says of which family it is.
    if attributes.get("stylename") in styles:
        attributes = {**attributes, "stylename": styles[attributes["stylename"]]}
    element = getattr(importlib.import_module("odf." + module), kind)(**attributes)
    if name == "style.Style":
        styles[attributes["name"]] = element
    for child in children:
        if isinstance(child, str):
            element.addText(child)
        else:
            element.addElement(build(child))
    return element


given = json.load(sys.stdin)
document = OpenDocumentPresentation()
layout = style.PageLayout(name="PM")
layout.addElement(style.PageLayoutProperties(pagewidth="960pt", pageheight="540pt", printorientation="landscape"))
document.automaticstyles.addElement(layout)
master = style.MasterPage(name="Plain", pagelayoutname=layout)
document.masterstyles.addElement(master)
for number, entry in enumerate(given):
    for node in entry.get("common", []):
        document.styles.addElement(build(node))
    for node in entry.get("styles", []):
        document.automaticstyles.addElement(build(node))
    page = draw.Page(name="page%d" % number, masterpagename=master, **entry.get("page", {}))
    document.presentation.addElement(page)
    for node in entry["shapes"]:
        page.addElement(build(node))
document.save(sys.argv[1])
