import type { Element } from '@xmldom/xmldom';
import { dateFromSerial, format as formatted, isDateFormat } from 'numfmt';
import { attribute, child, children } from './xml.ts';

/** How the cells of one style show numbers. */
export interface NumberFormat {
  pattern: string;
  /** Days since the first day of 1904 instead of 1900. */
  date1904: boolean;
}

/** ECMA-376 Part 1, section 18.8.30: patterns that files name by number only. Those that follow a country are as in English. */
const BUILT_IN: Record<number, string> = {
  0: 'General',
  1: '0',
  2: '0.00',
  3: '#,##0',
  4: '#,##0.00',
  9: '0%',
  10: '0.00%',
  11: '0.00E+00',
  12: '# ?/?',
  13: '# ??/??',
  14: 'mm-dd-yy',
  15: 'd-mmm-yy',
  16: 'd-mmm',
  17: 'mmm-yy',
  18: 'h:mm AM/PM',
  19: 'h:mm:ss AM/PM',
  20: 'h:mm',
  21: 'h:mm:ss',
  22: 'm/d/yy h:mm',
  37: '#,##0 ;(#,##0)',
  38: '#,##0 ;[Red](#,##0)',
  39: '#,##0.00;(#,##0.00)',
  40: '#,##0.00;[Red](#,##0.00)',
  45: 'mm:ss',
  46: '[h]:mm:ss',
  47: 'mmss.0',
  48: '##0.0E+0',
  49: '@',
};

/** The format of each cell style of a workbook. */
export function xlsxFormats(styles: Element | undefined, date1904: boolean): (style: number) => NumberFormat {
  const own = new Map(
    children(child(styles, 'numFmts'), 'numFmt').map((one) => [
      Number(attribute(one, 'numFmtId')),
      attribute(one, 'formatCode') ?? 'General',
    ]),
  );
  const patterns = children(child(styles, 'cellXfs'), 'xf').map((one) => {
    const id = Number(attribute(one, 'numFmtId') ?? 0);
    return own.get(id) ?? BUILT_IN[id] ?? 'General';
  });
  return (style) => ({ pattern: patterns[style] ?? 'General', date1904 });
}

const DAYS_TO_1904 = 1462;
const ELAPSED = /\[(?:h+|m+|s+)\]/iu;

/** A number as its cell shows it; a day always as `2026-03-09`, with its time where there is one, a time alone as `14:30`. */
export function valueText(value: number, { pattern, date1904 }: NumberFormat): string {
  if (!Number.isFinite(value)) return '';
  const days = date1904 && isDateFormat(pattern) ? value + DAYS_TO_1904 : value;
  if (isDateFormat(pattern) && !ELAPSED.test(pattern)) return dateText(days, pattern);
  if (/^General$/iu.test(pattern)) return plainNumber(value);
  const shown = formatted(pattern, ELAPSED.test(pattern) ? value : days, { throws: false }).trim();
  // A pattern that hides its value, or that nobody understands.
  return shown === '' || /^#+$/u.test(shown) ? plainNumber(value) : shown;
}

/** Without what computing in binary leaves behind. */
const plainNumber = (value: number): string => String(Number(value.toPrecision(12)));

function dateText(days: number, pattern: string): string {
  if (days < 0) return plainNumber(days);
  const [year, month, day, hours, minutes, seconds] = dateFromSerial(days) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const two = (number: number): string => String(number).padStart(2, '0');
  const clock = `${two(hours)}:${two(minutes)}${seconds > 0 ? `:${two(seconds)}` : ''}`;
  if (days < 1 || !/[yd]/iu.test(pattern.replace(/"[^"]*"|\[[^\][]*\]|\\./gu, ''))) return clock;
  const date = `${year}-${two(month)}-${two(day)}`;
  return hours + minutes + seconds > 0 ? `${date} ${clock}` : date;
}
