/** A presentation as flat OpenDocument XML, which LibreOffice saves as .odp or .pptx. */
export interface SlideText {
  title: string;
  points?: string[];
  /** Rows of a table, the first as its head. */
  table?: string[][];
  /** A boxed sentence at the foot of the slide. */
  box?: string;
  picture?: string;
  notes?: string;
}

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

const NAMESPACES = Object.entries({
  office: 'office:1.0',
  style: 'style:1.0',
  text: 'text:1.0',
  table: 'table:1.0',
  draw: 'drawing:1.0',
  fo: 'xsl-fo-compatible:1.0',
  svg: 'svg-compatible:1.0',
  presentation: 'presentation:1.0',
})
  .map(([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}"`)
  .join(' ');

/** @param pictures PNG pictures as base64, by the names that the slides use */
export const flatPresentation = (
  slides: SlideText[],
  pictures: Record<string, string> = {},
): string => `<?xml version="1.0" encoding="UTF-8"?>
<office:document ${NAMESPACES} xmlns:xlink="http://www.w3.org/1999/xlink" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.presentation">
<office:styles>
  <style:style style:name="standard" style:family="graphic"><style:graphic-properties draw:stroke="none" draw:fill="none"/><style:text-properties fo:font-family="Liberation Sans" fo:font-size="18pt" fo:language="en" fo:country="GB"/></style:style>
</office:styles>
<office:automatic-styles>
  <style:page-layout style:name="wide"><style:page-layout-properties fo:page-width="28cm" fo:page-height="15.75cm" style:print-orientation="landscape"/></style:page-layout>
  <style:style style:name="dp" style:family="drawing-page"><style:drawing-page-properties draw:fill="solid" draw:fill-color="#f3efe6"/></style:style>
  <style:style style:name="box" style:family="graphic" style:parent-style-name="standard"><style:graphic-properties draw:stroke="solid" svg:stroke-color="#3a5a66" svg:stroke-width="0.05cm" draw:fill="solid" draw:fill-color="#d9e4e4" draw:textarea-vertical-align="middle"/></style:style>
  <style:style style:name="line" style:family="graphic" style:parent-style-name="standard"><style:graphic-properties draw:stroke="solid" svg:stroke-color="#3a5a66" svg:stroke-width="0.1cm"/></style:style>
  <style:style style:name="plain" style:family="graphic" style:parent-style-name="standard"/>
  <style:style style:name="title" style:family="presentation"><style:graphic-properties draw:stroke="none" draw:fill="none" draw:textarea-vertical-align="middle"/><style:text-properties fo:font-size="36pt" fo:font-weight="bold" fo:color="#22404a"/></style:style>
  <style:style style:name="outline" style:family="presentation"><style:graphic-properties draw:stroke="none" draw:fill="none"/><style:text-properties fo:font-size="22pt"/></style:style>
  <style:style style:name="P1" style:family="paragraph"><style:paragraph-properties fo:text-align="center"/><style:text-properties fo:font-size="18pt" fo:font-style="italic"/></style:style>
  <style:style style:name="big" style:family="text"><style:text-properties fo:font-size="22pt"/></style:style>
  <style:style style:name="bigTitle" style:family="text"><style:text-properties fo:font-size="36pt" fo:font-weight="bold" fo:color="#22404a"/></style:style>
  <style:style style:name="cell" style:family="table-cell"><style:graphic-properties draw:fill="solid" draw:fill-color="#ffffff"/><style:paragraph-properties fo:border="0.03cm solid #3a5a66"/><style:text-properties fo:font-size="18pt"/></style:style>
  <style:style style:name="column" style:family="table-column"><style:table-column-properties style:column-width="6cm"/></style:style>
  <text:list-style style:name="bullets"><text:list-level-style-bullet text:level="1" text:bullet-char="•"><style:list-level-properties text:min-label-width="0.8cm"/></text:list-level-style-bullet></text:list-style>
</office:automatic-styles>
<office:master-styles><style:master-page style:name="Default" style:page-layout-name="wide" draw:style-name="dp"/></office:master-styles>
<office:body><office:presentation>
${slides.map((slide, index) => page(slide, index, pictures)).join('\n')}
</office:presentation></office:body></office:document>`;

function page(
  { title, points, table, box, picture, notes }: SlideText,
  index: number,
  pictures: Record<string, string>,
): string {
  const width = picture ? '13cm' : '25cm';
  return `<draw:page draw:name="page${index + 1}" draw:master-page-name="Default" draw:style-name="dp">
  <draw:frame presentation:style-name="title" presentation:class="title" svg:x="1.5cm" svg:y="0.8cm" svg:width="25cm" svg:height="2.6cm"><draw:text-box><text:p><text:span text:style-name="bigTitle">${escape(title)}</text:span></text:p></draw:text-box></draw:frame>
  <draw:line draw:style-name="line" svg:x1="1.7cm" svg:y1="3.5cm" svg:x2="26.3cm" svg:y2="3.5cm"/>
  ${points ? `<draw:frame presentation:style-name="outline" presentation:class="outline" svg:x="1.5cm" svg:y="4.2cm" svg:width="${width}" svg:height="8cm"><draw:text-box><text:list text:style-name="bullets">${points.map((point) => `<text:list-item><text:p><text:span text:style-name="big">${escape(point)}</text:span></text:p></text:list-item>`).join('')}</text:list></draw:text-box></draw:frame>` : ''}
  ${table ? `<draw:frame draw:style-name="plain" svg:x="2cm" svg:y="4.6cm" svg:width="${table[0]!.length * 6}cm" svg:height="${table.length * 1.2}cm"><table:table table:use-first-row-styles="true">${table[0]!.map(() => '<table:table-column table:style-name="column"/>').join('')}${table.map((row) => `<table:table-row>${row.map((cell) => `<table:table-cell table:style-name="cell"><text:p>${escape(cell)}</text:p></table:table-cell>`).join('')}</table:table-row>`).join('')}</table:table></draw:frame>` : ''}
  ${picture ? `<draw:frame draw:style-name="plain" svg:x="15.2cm" svg:y="4.4cm" svg:width="11.2cm" svg:height="7.5cm"><draw:image><office:binary-data>${pictures[picture]!}</office:binary-data></draw:image><svg:desc>${escape(`A drawing: ${picture}`)}</svg:desc></draw:frame>` : ''}
  ${box ? `<draw:custom-shape draw:style-name="box" svg:x="3cm" svg:y="12.7cm" svg:width="22cm" svg:height="2cm"><text:p text:style-name="P1">${escape(box)}</text:p><draw:enhanced-geometry draw:type="round-rectangle" svg:viewBox="0 0 21600 21600" draw:enhanced-path="M 0 0 L 21600 0 21600 21600 0 21600 Z N"/></draw:custom-shape>` : ''}
  ${notes ? `<presentation:notes><draw:frame presentation:class="notes" svg:x="2cm" svg:y="14cm" svg:width="17cm" svg:height="10cm"><draw:text-box><text:p>${escape(notes)}</text:p></draw:text-box></draw:frame></presentation:notes>` : ''}
</draw:page>`;
}
