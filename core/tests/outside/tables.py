"""What openpyxl and odfpy read from a workbook and a spreadsheet: every sheet's cells as they are, and whether one is a formula."""
import json, sys
import openpyxl
from openpyxl.utils.escape import unescape
from odf.opendocument import load
from odf.table import Table, TableRow, TableCell
from odf.text import P

question = json.load(sys.stdin)
book = openpyxl.load_workbook(question["xlsx"])
xlsx = {s.title: [[unescape(c.value) if isinstance(c.value, str) else c.value for c in row] for row in s.iter_rows()] for s in book.worksheets}
formulas = sum(c.data_type == "f" for s in book.worksheets for row in s.iter_rows() for c in row)
ods = {}
for table in load(question["ods"]).spreadsheet.getElementsByType(Table):
    rows = []
    for row in table.getElementsByType(TableRow):
        cells = []
        for cell in row.getElementsByType(TableCell):
            kind = cell.getAttribute("valuetype")
            words = "\n".join("".join(n.data for n in p.childNodes if n.nodeType == n.TEXT_NODE) for p in cell.getElementsByType(P))
            cells.append(float(cell.getAttribute("value")) if kind == "float" else (words if kind == "string" else None))
            formulas += cell.getAttribute("formula") is not None
        rows.append(cells)
    ods[table.getAttribute("name")] = rows
json.dump({"xlsx": xlsx, "ods": ods, "formulas": formulas}, sys.stdout)
