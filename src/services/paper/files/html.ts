/** A document as one HTML page for mail: no script, nothing fetched, styles at the tags as mail readers want them. */
import type { Cell, Node, PaperDocument, Span } from '../../../core/paper';
import type { GivenFiles } from './given-files';
import { svgOf } from './node-svg';
import { pictureRaster, rasterOf } from './raster';

const escaped = (text: string): string =>
  text.replace(
    /[&<>"']/g,
    (letter) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[letter] as string,
  );

const quiet = 'color:#5a5d60';
const looks = {
  strong: 'font-weight:600',
  quiet: `font-size:13px;${quiet}`,
  code: 'font-family:Consolas,Menlo,monospace;font-size:13px',
  head: `font-size:12px;${quiet}`,
} as const;
const cellStyle = 'padding:4px 6px;vertical-align:top';
const figureStyle = 'text-align:right;white-space:nowrap;font-variant-numeric:tabular-nums';

/** The page. */
export async function writeHtml(document: PaperDocument, files: GivenFiles): Promise<Uint8Array> {
  const { language, colour, head, watermark, reference } = document;
  const mark = head.mark === null ? undefined : files[head.mark];
  const raster = mark && (await pictureRaster(mark, { width: 60, height: 60 }));
  const blocks: string[] = [];
  for (const block of document.blocks) {
    const made: string[] = [];
    for (const node of block.nodes) made.push(await nodeHtml(node, document, files));
    blocks.push(`<section>${made.join('\n')}</section>`);
  }
  const page = `<!doctype html>
<html lang="${language}">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escaped(`${document.what} ${reference}`)}</title></head>
<body style="margin:0;background:#ffffff;color:#23262a;font:15px/1.45 Arial,Helvetica,sans-serif">
<div style="max-width:720px;margin:0 auto;padding:24px 16px">
<header style="border-bottom:3px solid ${colour};padding-bottom:10px;margin-bottom:20px">
${raster ? imgOf(raster, head.name) : ''}
<div style="font-size:18px;font-weight:600">${escaped(head.name)}</div>
${head.lines.map((line) => `<div style="font-size:13px;${quiet}">${escaped(line)}</div>`).join('\n')}
</header>
${watermark === '' ? '' : `<p style="color:#a3352b;font-weight:600">${escaped(watermark)}</p>`}
${blocks.join('\n')}
<footer style="border-top:1px solid #c9c0ae;margin-top:24px;padding-top:8px;font-size:12px;${quiet}">${escaped(head.foot.join(' · '))}</footer>
</div>
</body>
</html>
`;
  return new TextEncoder().encode(page);
}

const imgOf = ({ png, width, height }: { png: Buffer; width: number; height: number }, alt: string): string =>
  `<img alt="${escaped(alt)}" width="${String(width)}" height="${String(height)}" style="max-width:100%;height:auto" src="data:image/png;base64,${png.toString('base64')}">`;

const spansHtml = (spans: readonly Span[]): string =>
  spans
    .map(({ text, bold, italic, link }) => {
      let made = escaped(text).replace(/\n/g, '<br>');
      if (bold) made = `<strong>${made}</strong>`;
      if (italic) made = `<em>${made}</em>`;
      return link ? `<a href="${escaped(link)}">${made}</a>` : made;
    })
    .join('');

async function nodeHtml(node: Node, document: PaperDocument, files: GivenFiles): Promise<string> {
  switch (node.is) {
    case 'heading': {
      const size = { 1: 19, 2: 17, 3: 15 }[node.level];
      const tag = `h${String(node.level)}`;
      return `<${tag} style="font-size:${String(size)}px;margin:18px 0 6px${node.level === 2 ? `;color:${document.colour}` : ''}">${escaped(node.text)}</${tag}>`;
    }
    case 'paragraph':
      return `<p style="margin:0 0 ${node.look ? '1' : '8'}px${node.look ? `;${looks[node.look]}` : ''}">${spansHtml(node.spans)}</p>`;
    case 'list': {
      const tag = node.ordered ? 'ol' : 'ul';
      return `<${tag} style="margin:0 0 8px;padding-left:22px">${node.items.map((item) => `<li>${spansHtml(item)}</li>`).join('')}</${tag}>`;
    }
    case 'pairs':
      return `<table role="presentation" style="border-collapse:collapse;margin:0 0 10px">${node.rows
        .map(
          ([name, value]) =>
            `<tr><td style="${cellStyle};${quiet};padding-left:0">${escaped(name)}</td><td style="${cellStyle}">${escaped(value).replace(/\n/g, '<br>')}</td></tr>`,
        )
        .join('')}</table>`;
    case 'table':
      return tableHtml(node, document.colour);
    case 'sums':
      return `<table style="border-collapse:collapse;margin:0 0 12px auto">${node.rows
        .map(
          ({ name, text, strong }) =>
            `<tr style="${strong ? `font-weight:600;border-top:1px solid ${document.colour}` : ''}"><td style="${cellStyle}${strong ? '' : `;${quiet}`}">${escaped(name)}</td><td style="${cellStyle};${figureStyle}">${escaped(text)}</td></tr>`,
        )
        .join('')}</table>`;
    case 'drawing':
    case 'timeline': {
      const { svg, ratio } = svgOf(node, document);
      const caption = node.is === 'drawing' ? node.caption : '';
      const raster = await rasterOf(svg, ratio, { width: 640, height: 420 });
      return `<figure style="margin:0 0 12px">${imgOf(raster, caption)}${caption === '' ? '' : `<figcaption style="font-size:12px;${quiet}">${escaped(caption)}</figcaption>`}</figure>`;
    }
    case 'picture': {
      const found = files[node.file];
      const raster = found && (await pictureRaster(found, { width: 640, height: 420 }));
      return raster ? `<figure style="margin:0 0 12px">${imgOf(raster, node.caption)}</figure>` : '';
    }
    case 'fields':
      return `<p style="margin:24px 0 8px">${node.names.map((name) => `<span style="display:inline-block;min-width:180px;margin-right:16px;border-top:1px solid #23262a;font-size:12px;${quiet}">${escaped(name)}</span>`).join('')}</p>`;
  }
}

function tableHtml(node: Extract<Node, { is: 'table' }>, colour: string): string {
  const head = node.columns
    .map(
      ({ title, right }) =>
        `<th scope="col" style="${cellStyle};font-size:12px;font-weight:400;${quiet};text-align:${right ? 'right' : 'left'};border-bottom:2px solid ${colour}">${escaped(title)}</th>`,
    )
    .join('');
  const rows = node.rows.map((row) => {
    let column = 0;
    const cells = row.cells.map((cell) => {
      const over = cell.over ?? 1;
      const right = (node.columns[column]?.right === true && over === 1) || cell.figure !== undefined;
      column += over;
      const border = row.is === 'item' || row.is === 'group' ? ';border-top:1px solid #c9c0ae' : '';
      const strong = row.is === 'sum' || row.is === 'group' ? ';font-weight:600' : '';
      return `<td${over > 1 ? ` colspan="${String(over)}"` : ''} style="${cellStyle}${right ? `;${figureStyle}` : ''}${border}${strong}">${cellHtml(cell)}</td>`;
    });
    return `<tr>${cells.join('')}</tr>`;
  });
  return `<table style="border-collapse:collapse;width:100%;margin:0 0 12px"><thead><tr>${head}</tr></thead><tbody>${rows.join('\n')}</tbody></table>`;
}

function cellHtml(cell: Cell): string {
  const lines = cell.lines.map(
    ({ spans, look }) => `<div${look ? ` style="${looks[look]}"` : ''}>${spansHtml(spans)}</div>`,
  );
  const entries = (cell.entries ?? []).map(
    ([name = '', value = '', amount]) =>
      `<div style="font-size:12px"><span style="${quiet}">${escaped(name)}:</span> ${escaped([value, amount].filter(Boolean).join('   '))}</div>`,
  );
  return [...lines, ...entries].join('');
}
