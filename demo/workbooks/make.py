"""Writes the demo's workbooks with Debian's python3-xlsxwriter and python3-odf. All data are made up.

python3 demo/workbooks/make.py puts them into demo/content: the first quarter, and in next-quarter the second.
"""
from pathlib import Path

import xlsxwriter
from odf import number, style, table, text
from odf.opendocument import OpenDocumentSpreadsheet

content = Path(__file__).parent.parent / "content"
STATIONS = ["Quay", "Gauge north", "Bar", "Ferry steps"]
QUARTERS = {
    content: (["January", "February", "March"], [[2.41, 2.38, 2.36], [2.22, 2.2, 2.19], [2.6, 2.55, 2.57], [2.35, 2.33, 2.3]]),
    content / "next-quarter": (["April", "May", "June"], [[2.33, 2.29, 2.31], [2.17, 2.14, 2.15], [2.51, 2.48, 2.5], [2.28, 2.26, 2.27]]),
}
LINES = [["Line 1", 412, 405], ["Line 2", 388, 381], ["Line 3", 395, 392], ["Line 4", 420, 374], ["Line 5", 367, 365]]


def gauges(path, months, levels, spring):
    book = xlsxwriter.Workbook(path)
    book.set_properties({"title": "Gauges of the station", "author": "Monitoring group"})
    metres, share = book.add_format({"num_format": "0.00"}), book.add_format({"num_format": "0 %"})
    strong = book.add_format({"bold": True})
    sheet = book.add_worksheet("Levels")
    sheet.write_row(0, 0, ["Station", *months], strong)
    for row, (station, values) in enumerate(zip(STATIONS, levels), 1):
        sheet.write(row, 0, station)
        for column, value in enumerate(values, 1):
            sheet.write_number(row, column, value, metres)
    sheet.set_column(0, 0, 18)
    book.define_name("Mean_at_the_quay", "=Levels!$F$2")
    sheet.write(0, 5, "Mean", strong)
    for row, values in enumerate(levels, 1):
        sheet.write_formula(row, 5, f"=AVERAGE(B{row + 1}:D{row + 1})", metres, round(sum(values) / 3, 4))
    chart = book.add_chart({"type": "line"})
    for row in range(1, len(STATIONS) + 1):
        chart.add_series({"name": ["Levels", row, 0], "categories": ["Levels", 0, 1, 0, 3], "values": ["Levels", row, 1, row, 3]})
    chart.set_title({"name": "Levels by month"})
    sheet.insert_chart("A8", chart)
    dunes = book.add_worksheet("Dunes")
    rows = [[line, before, after - spring, (after - spring) / before - 1] for line, before, after in LINES]
    dunes.add_table(0, 0, len(rows), 3, {"name": "Dunes", "data": rows, "columns": [
        {"header": "Transect"}, {"header": "October"}, {"header": "Latest"}, {"header": "Change", "format": share}]})
    dunes.set_column(0, 3, 14)
    book.close()


def visitors(path):
    book = OpenDocumentSpreadsheet()
    whole = number.NumberStyle(name="N1")
    whole.addElement(number.Number(decimalplaces="0", minintegerdigits="1", grouping="true"))
    book.automaticstyles.addElement(whole)
    book.automaticstyles.addElement(style.Style(name="count", family="table-cell", datastylename="N1"))
    sheet = table.Table(name="Visitors")
    for name, *values in [["Month", "Guided", "Alone"], ["January", 120, 1340], ["February", 180, 1520], ["March", 310, 2210]]:
        line = table.TableRow()
        for value in [name, *values]:
            if isinstance(value, str):
                cell = table.TableCell(valuetype="string")
            else:
                cell = table.TableCell(valuetype="float", value=str(value), stylename="count")
            cell.addElement(text.P(text=str(value)))
            line.addElement(cell)
        sheet.addElement(line)
    book.spreadsheet.addElement(sheet)
    book.save(str(path))


for nth, (folder, (months, levels)) in enumerate(QUARTERS.items()):
    gauges(folder / "station-gauges.xlsx", months, levels, nth * 6)
visitors(content / "visitors.ods")
