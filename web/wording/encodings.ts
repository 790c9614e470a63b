import type { Encoding } from '#contract/uploads';

/** How the letters of a text may be stored, in words that tell which languages it is for. */
export const ENCODING_NAMES: Record<Encoding, string> = {
  'utf-8': 'All languages (UTF-8)',
  'utf-16le': 'All languages (UTF-16, little-endian)',
  'utf-16be': 'All languages (UTF-16, big-endian)',
  'windows-1252': 'Western European (Windows-1252)',
  'windows-1250': 'Central European (Windows-1250)',
  'iso-8859-2': 'Central European (ISO 8859-2)',
  'windows-1251': 'Cyrillic (Windows-1251)',
  'koi8-r': 'Cyrillic (KOI8-R)',
  'windows-1253': 'Greek (Windows-1253)',
  'windows-1254': 'Turkish (Windows-1254)',
  'windows-1255': 'Hebrew (Windows-1255)',
  'windows-1256': 'Arabic (Windows-1256)',
  'windows-1257': 'Baltic (Windows-1257)',
  shift_jis: 'Japanese (Shift JIS)',
  'euc-jp': 'Japanese (EUC-JP)',
  gb18030: 'Chinese, simplified (GB 18030)',
  big5: 'Chinese, traditional (Big5)',
  'euc-kr': 'Korean (EUC-KR)',
};
