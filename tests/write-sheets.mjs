// node tests/write-sheets.mjs FOLDER: the rows on standard input (JSON) as files that another library writes.
import { join } from 'node:path';
import ExcelJS from 'exceljs';

const folder = process.argv[2];
const chunks = [];
for await (const chunk of process.stdin) chunks.push(chunk);
const rows = JSON.parse(Buffer.concat(chunks).toString('utf8'));

const book = new ExcelJS.Workbook();
const sheet = book.addWorksheet('From Node');
for (const row of rows) sheet.addRow(row);
await book.xlsx.writeFile(join(folder, 'node.xlsx'));
await book.csv.writeFile(join(folder, 'node.csv'), { formatterOptions: { writeBOM: true } });
