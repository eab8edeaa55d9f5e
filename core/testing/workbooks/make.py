"""Writes workbooks with Debian's python3-xlsxwriter, python3-openpyxl and python3-odf into a folder.

Prints as JSON what each cell holds: by openpyxl as reader for .xlsx, by what was written for .ods. Dates are ISO 8601.
"""
import datetime
import json
import random
import sys
from pathlib import Path

import openpyxl
import xlsxwriter
from odf import chart, draw, number, style, table, text
from odf.opendocument import OpenDocumentChart, OpenDocumentSpreadsheet

folder = Path(sys.argv[1])
WORDS = ["Quay", "Bar", "Ferry steps", "Tïde", "", "a & b < c", "line\nbreak", "x" * 300, "=1+1", "'quoted'"]
FORMATS = ["General", "0", "0.00", "#,##0", "0%", "0.0E+00", '"m "0.0', "# ?/?"]


def plain(value):
    if isinstance(value, datetime.datetime):
        return {"date": value.isoformat()}
    if isinstance(value, datetime.date):
        return {"date": value.isoformat()}
    if isinstance(value, datetime.time):
        return {"date": value.isoformat()}
    return value


def cells(random_, count):
    for _ in range(count):
        row, column = random_.randrange(60), random_.randrange(30)
        kind = random_.randrange(6)
        if kind == 0:
            yield row, column, random_.choice(WORDS)
        elif kind == 1:
            yield row, column, random_.randrange(-10**6, 10**6)
        elif kind == 2:
            yield row, column, round(random_.uniform(-1000, 1000), random_.randrange(1, 12))
        elif kind == 3:
            yield row, column, bool(random_.randrange(2))
        elif kind == 4:
            yield row, column, datetime.datetime(1990, 1, 1) + datetime.timedelta(minutes=random_.randrange(20_000_000))
        else:
            yield row, column, random_.uniform(0, 1) * 10 ** random_.randrange(-8, 12)


def by_xlsxwriter(path, seed):
    chance = random.Random(seed)
    book = xlsxwriter.Workbook(path, {"date_1904": seed % 3 == 0, "in_memory": True, "constant_memory": False,
                                      "strings_to_formulas": False})
    formats = [book.add_format({"num_format": code}) for code in FORMATS]
    date = book.add_format({"num_format": "d mmm yyyy hh:mm"})
    for nth in range(1 + seed % 3):
        sheet = book.add_worksheet(f"Sheet '{nth}" if seed % 2 else f"Levels {nth}")
        for row, column, value in cells(chance, 200):
            if isinstance(value, datetime.datetime):
                sheet.write_datetime(row, column, value, date)
            elif isinstance(value, bool):
                sheet.write_boolean(row, column, value)
            elif isinstance(value, str):
                sheet.write_string(row, column, value)
            else:
                sheet.write_number(row, column, value, chance.choice(formats))
    book.close()


def by_openpyxl(path, seed):
    chance = random.Random(seed)
    book = openpyxl.Workbook()
    for nth in range(1 + seed % 2):
        sheet = book.active if nth == 0 else book.create_sheet(f"Über {nth}")
        # A cell that is written twice would keep the date format of the first value.
        grid = {(row, column): value for row, column, value in cells(chance, 150)}
        for (row, column), value in grid.items():
            if not (isinstance(value, str) and value.startswith("=")):
                sheet.cell(row + 1, column + 1, value)
        sheet["A100"] = "#REF!"
        sheet["A100"].data_type = "e"
    book.save(path)


def by_odf(path, seed):
    chance = random.Random(seed)
    book = OpenDocumentSpreadsheet()
    expected = {}
    for nth in range(1 + seed % 2):
        name = f"Levels {nth}"
        grid = {}
        for row, column, value in cells(chance, 150):
            if value != "":
                grid[row, column] = value
        sheet = table.Table(name=name)
        for row in range(60):
            line = table.TableRow()
            for column in range(30):
                value = grid.get((row, column))
                if value is None:
                    cell = table.TableCell()
                elif isinstance(value, bool):
                    cell = table.TableCell(valuetype="boolean", booleanvalue="true" if value else "false")
                elif isinstance(value, datetime.datetime):
                    cell = table.TableCell(valuetype="date", datevalue=value.isoformat())
                elif isinstance(value, str):
                    cell = table.TableCell(valuetype="string")
                    for part in value.split("\n"):
                        cell.addElement(text.P(text=part))
                else:
                    cell = table.TableCell(valuetype="float", value=repr(value))
                line.addElement(cell)
            sheet.addElement(line)
        book.spreadsheet.addElement(sheet)
        expected[name] = [[row, column, plain(value)] for (row, column), value in sorted(grid.items())]
    book.save(str(path))
    return expected


def read(path):
    book = openpyxl.load_workbook(path, data_only=True)
    return {
        sheet.title: [
            [cell.row - 1, cell.column - 1, plain(cell.value)]
            for row in sheet.iter_rows()
            for cell in row
            if cell.value is not None
        ]
        for sheet in book.worksheets
    }


result = {}
for seed in range(14):
    path = folder / f"xlsxwriter-{seed}.xlsx"
    by_xlsxwriter(path, seed)
    result[path.name] = read(path)
for seed in range(10):
    path = folder / f"openpyxl-{seed}.xlsx"
    by_openpyxl(path, seed)
    result[path.name] = read(path)
for seed in range(6):
    path = folder / f"odf-{seed}.ods"
    result[path.name] = by_odf(path, seed)


def features(path):
    book = xlsxwriter.Workbook(path)
    sheet = book.add_worksheet("Tide levels")
    one, percent = book.add_format({"num_format": "0.0"}), book.add_format({"num_format": "0%"})
    rows = [["Station", "January", "February", "March"], ["Quay", 4.1, 4.25, 4.6], ["Bar", 3.2, 3.4, 3.1]]
    for row, values in enumerate(rows):
        for column, value in enumerate(values):
            sheet.write(row, column, value, one if row and column else None)
    sheet.write_formula("E2", "=SUM(B2:D2)", one, 12.95)
    sheet.write_formula("E3", "=1/0", None, "#DIV/0!")
    sheet.merge_range("A6:B7", "merged")
    sheet.set_row(2, None, None, {"hidden": True})
    sheet.set_column("C:C", None, None, {"hidden": True})
    surveys = book.add_worksheet("Surveys")
    surveys.add_table("B2:D6", {"name": "Dunes", "total_row": True, "data": [["a", 1, 0.5], ["b", 2, 0.25], ["c", 3, 0.25]],
                                "columns": [{"header": "Line", "total_string": "Total"}, {"header": "Height", "total_function": "sum"},
                                            {"header": "Cover", "format": percent}]})
    hidden = book.add_worksheet("Workings")
    hidden.hide()
    book.define_name("Highest", "='Tide levels'!$D$2")
    book.define_name("Surveys!Local", "=Surveys!$C$3:$C$5")
    book.define_name("Lost", "=#REF!")
    chart = book.add_chart({"type": "bar"})
    chart.add_series({"name": "='Tide levels'!$A$2", "categories": "='Tide levels'!$B$1:$D$1", "values": "='Tide levels'!$B$2:$D$2"})
    chart.set_title({"name": "Quay"})
    sheet.insert_chart("G2", chart)
    book.close()
    plainbook = openpyxl.Workbook()
    plainbook.active["A1"] = "=1+1"
    plainbook.active["A2"] = 2
    plainbook.save(folder / "no-results.xlsx")
    spreadsheet = OpenDocumentSpreadsheet()
    tenths = number.NumberStyle(name="N1")
    tenths.addElement(number.Number(decimalplaces="1", minintegerdigits="1", grouping="true"))
    spreadsheet.automaticstyles.addElement(tenths)
    day = number.DateStyle(name="N2")
    day.addElement(number.Day(style="long"))
    day.addElement(number.Text(text="."))
    day.addElement(number.Month(style="long"))
    day.addElement(number.Text(text="."))
    day.addElement(number.Year(style="long"))
    spreadsheet.automaticstyles.addElement(day)
    for name, data in (("c1", "N1"), ("c2", "N2")):
        spreadsheet.automaticstyles.addElement(style.Style(name=name, family="table-cell", datastylename=data))
    sheet = table.Table(name="Levels")
    first = table.TableRow()
    first.addElement(table.TableCell(valuetype="float", value="1234.56", stylename="c1"))
    first.addElement(table.TableCell(valuetype="date", datevalue="2026-03-09", stylename="c2"))
    first.addElement(table.TableCell(valuetype="float", value="7", numbercolumnsrepeated="3"))
    sheet.addElement(first)
    sheet.addElement(table.TableRow(numberrowsrepeated="1048575"))
    spreadsheet.spreadsheet.addElement(sheet)
    names = table.NamedExpressions()
    names.addElement(table.NamedRange(name="Top", cellrangeaddress="$Levels.$A$1:.$B$1", basecelladdress="$Levels.$A$1"))
    spreadsheet.spreadsheet.addElement(names)
    spreadsheet.save(str(folder / "features.ods"))
    chart_ods(folder / "chart.ods")


def chart_ods(path):
    """A spreadsheet with a chart of lying bars in a frame, as the examples of python3-odf make them."""
    book = OpenDocumentSpreadsheet()
    sheet = table.Table(name="Levels")
    for values in (["Station", "January", "February"], ["Quay", 4.1, 4.25], ["Bar", 3.2, 3.4]):
        row = table.TableRow()
        for value in values:
            if isinstance(value, str):
                cell = table.TableCell(valuetype="string")
                cell.addElement(text.P(text=value))
            else:
                cell = table.TableCell(valuetype="float", value=str(value))
            row.addElement(cell)
        sheet.addElement(row)
    drawing = OpenDocumentChart()
    drawing.automaticstyles.addElement(style.Style(name="plot", family="chart"))
    drawing.automaticstyles.childNodes[-1].addElement(style.ChartProperties(vertical="true"))
    body = chart.Chart(attributes={"class": "chart:bar"})
    title = chart.Title()
    title.addElement(text.P(text="Levels by month"))
    body.addElement(title)
    plot = chart.PlotArea(stylename="plot")
    axis = chart.Axis(dimension="x")
    axis.addElement(chart.Categories(cellrangeaddress="Levels.$B$1:Levels.$C$1"))
    plot.addElement(axis)
    for row in (2, 3):
        plot.addElement(chart.Series(valuescellrangeaddress=f"Levels.$B${row}:Levels.$C${row}",
                                     labelcelladdress=f"Levels.$A${row}"))
    body.addElement(plot)
    drawing.chart.addElement(body)
    shapes = table.Shapes()
    frame = draw.Frame(name="Object 1", width="8cm", height="6cm")
    frame.addElement(draw.Object(href=book.addObject(drawing)))
    shapes.addElement(frame)
    sheet.addElement(shapes)
    book.spreadsheet.addElement(sheet)
    book.save(str(path))


features(folder / "features.xlsx")
print(json.dumps(result))
