import { createRequire } from "node:module";
import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import type { WorkRelease } from "@cravix/core/airworthiness/life/release";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import PDFDocument from "pdfkit";

const FONTS = "@expo-google-fonts/atkinson-hyperlegible-next";
const require = createRequire(import.meta.url);
const REGULAR = require.resolve(`${FONTS}/400Regular/AtkinsonHyperlegibleNext_400Regular.ttf`);
const BOLD = require.resolve(`${FONTS}/700Bold/AtkinsonHyperlegibleNext_700Bold.ttf`);
const MARGIN = 40;

function paper(title: string, layout: "portrait" | "landscape") {
  const doc = new PDFDocument({
    size: "A4",
    layout,
    margin: MARGIN,
    bufferPages: true,
    info: { Title: title, Creator: "Cravix" },
  });
  const parts: Buffer[] = [];
  const made = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (part: Buffer) => parts.push(part));
    doc.on("end", () => resolve(Buffer.concat(parts)));
    doc.on("error", reject);
  });
  doc.registerFont("regular", REGULAR);
  doc.registerFont("bold", BOLD);
  return { doc, made };
}

/** Adds page numbers and ends the document. */
function numbered(doc: PDFKit.PDFDocument, title: string): void {
  const { count } = doc.bufferedPageRange();
  for (let page = 0; page < count; page++) {
    doc.switchToPage(page);
    doc.page.margins.bottom = 0;
    doc
      .font("regular")
      .fontSize(8)
      .text(`${title} · page ${page + 1} of ${count}`, MARGIN, doc.page.height - 28, {
        width: doc.page.width - 2 * MARGIN,
        align: "right",
        lineBreak: false,
      });
  }
  doc.end();
}

export interface PaperNames {
  /** Name of a person by id. */
  name: (id: string) => string;
}

const utc = (at: string) => `${at.slice(0, 10)} ${at.slice(11, 16)}`;

/** Technical log as PDF, newest flight first: one line per flight with meters, counts and remarks. */
export function flightsPdf(
  registration: string,
  lines: readonly (TechnicalLogEntry & { corrections?: number })[],
  meters: readonly RecordMeter[],
  { name }: PaperNames,
): Promise<Buffer> {
  const title = `${registration}: technical log`;
  const { doc, made } = paper(title, "landscape");
  const counted = meters.filter(({ kind }) => isCounted(kind));
  const read = meters.filter(({ kind }) => !isCounted(kind));
  const columns: [head: string, width: number, cell: (line: (typeof lines)[number]) => string][] = [
    ["Off blocks (UTC)", 88, (line) => utc(line.off)],
    ["On blocks", 36, (line) => line.on.slice(11, 16)],
    ["From – to", 128, (line) => (line.from === line.to ? line.from : `${line.from} – ${line.to}`)],
    ["Crew", 132, (line) => [line.pilot, ...(line.crew ?? [])].map(name).join(", ")],
    ...read.map((meter): (typeof columns)[number] => [
      meter.name,
      104,
      ({ meters: own }) => {
        const pair = own[meter.id];
        return pair ? `${pair.out.toFixed(meter.decimals)} – ${pair.in.toFixed(meter.decimals)}` : "";
      },
    ]),
    ...counted.map((meter): (typeof columns)[number] => [
      meter.name,
      52,
      ({ counts }) => (counts[meter.id] === undefined ? "" : String(counts[meter.id])),
    ]),
    [
      "Remarks",
      0,
      (line) => [line.corrections ? "corrected" : "", line.remarks ?? ""].filter(Boolean).join("; "),
    ],
  ];
  const fixed = columns.reduce((sum, [, width]) => sum + width, 0);
  const width = (own: number) => own || Math.max(60, doc.page.width - 2 * MARGIN - fixed);
  const row = (cells: string[], font: "regular" | "bold") => {
    doc.font(font).fontSize(8.5);
    const height = Math.max(
      ...cells.map((text, i) => doc.heightOfString(text || " ", { width: width(columns[i]?.[1] ?? 0) - 6 })),
    );
    if (doc.y + height > doc.page.height - MARGIN - 12) doc.addPage();
    const top = doc.y;
    let left = MARGIN;
    cells.forEach((text, i) => {
      const own = width(columns[i]?.[1] ?? 0);
      doc.text(text, left, top, { width: own - 6 });
      left += own;
    });
    doc.y = top + height + 3;
    doc
      .lineWidth(0.4)
      .moveTo(MARGIN, doc.y)
      .lineTo(doc.page.width - MARGIN, doc.y)
      .stroke();
    doc.y += 3;
  };
  doc.font("bold").fontSize(18).text(title, MARGIN, MARGIN);
  doc.moveDown(0.4);
  row(
    columns.map(([head]) => head),
    "bold",
  );
  for (const line of lines)
    row(
      columns.map(([, , cell]) => cell(line)),
      "regular",
    );
  numbered(doc, title);
  return made;
}

/** A release to service as PDF with everything a maintenance entry needs, to be signed by hand. */
export function releasePdf(
  release: WorkRelease & { at: string; crewId: string },
  {
    name,
    closes,
    items,
    meters,
  }: PaperNames & { closes: string[]; items: string[]; meters: readonly RecordMeter[] },
): Promise<Buffer> {
  const title = `${release.registration}: release to service`;
  const { doc, made } = paper(title, "portrait");
  const part = (head: string, words: string) => {
    if (words === "") return;
    doc.moveDown(0.6).font("bold").fontSize(11).text(head);
    doc.font("regular").fontSize(11).text(words);
  };
  doc.font("bold").fontSize(20).text(title);
  part("Date completed", release.date);
  part("Work done", release.done);
  part("Reference", release.reference ?? "");
  part(
    "Meter readings",
    meters
      .flatMap(({ id, name: words }) =>
        release.readings[id] === undefined ? [] : [`${words} ${release.readings[id]}`],
      )
      .join(", "),
  );
  part("Due items completed", items.join(", "));
  part("Discrepancies signed off", closes.join("; "));
  part("Open conditions", release.leaves.map((item) => item.name).join("; "));
  part(
    release.preventive ? "Preventive maintenance released by" : "Released by",
    `${name(release.crewId)}, ${release.certificate.kind} no. ${release.certificate.number}, ${utc(release.at)} UTC`,
  );
  doc.moveDown(3).font("regular").fontSize(11).text("Signature ______________________________");
  numbered(doc, title);
  return made;
}
