import { createRequire } from "node:module";
import { CAUTION, type PaperLine, paperDate, paperLines, paperTitle } from "@cravix/contract";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import PDFDocument from "pdfkit";

const FONTS = "@expo-google-fonts/atkinson-hyperlegible-next";
const require = createRequire(import.meta.url);
const REGULAR = require.resolve(`${FONTS}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`);
const BOLD = require.resolve(`${FONTS}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`);

/** A4 in points, with a margin for punch holes on the left. */
const PAGE = { left: 56, right: 40, top: 44, bottom: 48 };
const BOX = 10;
const INDENT = BOX + 8;
const GAP = 22;

/** Today's checklist as PDF with check boxes. Resolves with the bytes. */
export function listPdf(list: ComposedList): Promise<Buffer> {
  const doc = new PDFDocument({
    size: "A4",
    bufferPages: true,
    margins: PAGE,
    info: { Title: `${paperTitle(list)}: today's checklist`, Creator: "Cravix" },
  });
  const parts: Buffer[] = [];
  const made = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (part: Buffer) => parts.push(part));
    doc.on("end", () => resolve(Buffer.concat(parts)));
    doc.on("error", reject);
  });
  doc.registerFont("regular", REGULAR);
  doc.registerFont("bold", BOLD);
  const width = doc.page.width - PAGE.left - PAGE.right;
  doc.font("bold").fontSize(20).text(paperTitle(list), PAGE.left, PAGE.top, { width });
  doc.font("regular").fontSize(11).text(paperDate(list), { width });
  if (list.variant) doc.text(`${list.variant.name}: ${list.variant.what}`, { width });
  doc.fontSize(9).text(CAUTION, { width }).moveDown(0.6);

  // Two columns: less paper, and short lines.
  const column = (width - GAP) / 2;
  let left = PAGE.left;
  let top = doc.y;
  const nextColumn = () => {
    if (left === PAGE.left) left += column + GAP;
    else {
      doc.addPage();
      left = PAGE.left;
      top = PAGE.top;
    }
    doc.y = top;
  };
  let step = "";
  let station = "";
  for (const line of paperLines(list)) {
    const newStep = line.step !== step;
    const newStation = newStep || line.station !== station;
    // No heading alone at the foot of a column.
    const need = lineHeight(doc, line, column) + (newStep ? 26 : 0) + (newStation ? 20 : 0);
    if (doc.y + need > doc.page.height - PAGE.bottom) nextColumn();
    if (newStep)
      doc
        .font("bold")
        .fontSize(14)
        .text(line.step, left, doc.y + 6, { width: column });
    if (newStation)
      doc
        .font("bold")
        .fontSize(10.5)
        .text(line.station, left, doc.y + 3, { width: column });
    ({ step, station } = line);
    writeLine(doc, line, left, column);
  }
  const { count } = doc.bufferedPageRange();
  for (let page = 0; page < count; page++) {
    doc.switchToPage(page);
    // Without a bottom margin, so that the footer does not start a new page.
    doc.page.margins.bottom = 0;
    doc
      .font("regular")
      .fontSize(8)
      .text(`${list.registration} · page ${page + 1} of ${count}`, PAGE.left, doc.page.height - 34, {
        width,
        align: "right",
        lineBreak: false,
      });
  }
  doc.end();
  return made;
}

function below({ good, today, caution }: PaperLine): string {
  return [good, today && `Today: ${today}`, caution && `Caution: ${caution}`].filter(Boolean).join(" · ");
}

function lineHeight(doc: PDFKit.PDFDocument, line: PaperLine, width: number): number {
  const inner = width - INDENT;
  const title = doc.font("bold").fontSize(10).heightOfString(line.title, { width: inner });
  return title + doc.font("regular").fontSize(9).heightOfString(below(line), { width: inner }) + 5;
}

function writeLine(doc: PDFKit.PDFDocument, line: PaperLine, left: number, width: number): void {
  const top = doc.y + 3;
  doc
    .lineWidth(1)
    .rect(left, top + 1, BOX, BOX)
    .stroke();
  doc
    .font("bold")
    .fontSize(10)
    .text(line.title, left + INDENT, top, { width: width - INDENT });
  doc
    .font("regular")
    .fontSize(9)
    .text(below(line), left + INDENT, doc.y, { width: width - INDENT });
}
