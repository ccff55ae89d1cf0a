import { execFileSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import { charsetOf } from './charset'

const TEXTS = {
  ja: '釉薬のレシピ：透明釉は、長石と石灰を混ぜて作ります。陶芸教室の予定表をご覧ください。\n価格は税込みです。',
  zh: '釉料配方：透明釉由长石和石灰石混合而成。请查看陶艺班的时间表。价格含税。\n',
  ko: '유약 조리법: 투명유는 장석과 석회석을 섞어 만듭니다. 도예 교실 시간표를 보십시오.\n',
  de: 'Preisliste für Händler: Töpferscheiben, Glasuren, Öfen. Größe und Gewicht; Stück;\n',
  fr: 'Liste des prix : émaux, fours, tours à pied. Très grande qualité, livrée à Orléans.\n',
  pl: 'Cennik dla sprzedawców: koła garncarskie, szkliwa, piece. Łopata, źdźbło, żółty, ćma.\nWysyłka w ciągu tygodnia, płatność przelewem.',
  ru: 'Прайс-лист для торговцев: гончарные круги, глазури, печи. Доставка в течение недели.\n',
}

describe('the encoding of a text', () => {
  // Written by iconv; what is found has to read as what was written.
  it.each([
    ['ja', 'SHIFT_JIS'],
    ['ja', 'EUC-JP'],
    ['zh', 'GB18030'],
    ['ko', 'EUC-KR'],
    ['de', 'WINDOWS-1252'],
    ['de', 'ISO-8859-1'],
    ['fr', 'WINDOWS-1252'],
    ['pl', 'WINDOWS-1250'],
    ['pl', 'ISO-8859-2'],
    ['ru', 'WINDOWS-1251'],
    ['ru', 'KOI8-R'],
    ['de', 'UTF-16LE'],
    ['de', 'UTF-16BE'],
    ['ja', 'UTF-16'],
    ['ja', 'UTF-8'],
  ] as const)('%s in %s', (text, encoding) => {
    const bytes = execFileSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: TEXTS[text] })
    const charset = charsetOf(bytes)
    expect(charset).toBeDefined()
    expect(new TextDecoder(charset).decode(bytes)).toBe(TEXTS[text])
  })

  it('is that of Western Europe for few letters, and for a text that is cut off in a character its own', () => {
    expect(charsetOf(Buffer.from('Caf\xe9;12,50\n', 'latin1'))).toBe('windows-1252')
    expect(charsetOf(Buffer.from('\x93quoted\x94', 'latin1'))).toBe('windows-1252')
    expect(charsetOf(Buffer.from('Größe').subarray(0, 3))).toBe('utf-8')
  })

  it('is that of no text for bytes that are none', () => {
    // The first bytes of MPEG sound, of a program, and noughts.
    expect(charsetOf(Buffer.from([0xff, 0xfb, 0x90, 0x64, 0, 1, 2]))).toBeUndefined()
    expect(charsetOf(Buffer.from('\x7fELF\x02\x01\x01', 'latin1'))).toBe('utf-8')
    expect(charsetOf(Buffer.from('\x7fELF\x02\xe9(', 'latin1'))).toBeUndefined()
    expect(charsetOf(new Uint8Array(100))).toBeUndefined()
  })
})
