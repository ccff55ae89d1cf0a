import { describe, expect, it } from 'vitest'
import { isPlainlyAddress, recognise } from './recognise'

const OWN = ['www.marlpit.example', 'localhost:4180']

it.each([
  ['https://a.example', true],
  ['shop@example.com', true],
  ['www.example.com', true],
  ['/trade', true],
  ['list.pdf', false],
  ['example.com', false],
  ['+44 20', false],
])('%s can hardly be meant otherwise: %s', (text, plain) => expect(isPlainlyAddress(text)).toBe(plain))

describe('recognise', () => {
  it.each([
    ['https://www.marlpit.example/files/price-list.pdf?open&at=abc', { kind: 'own', path: '/files/price-list.pdf' }],
    // From http to https, and from the machine it was made on to the real domain: still our own.
    ['http://www.marlpit.example/trade', { kind: 'own', path: '/trade' }],
    ['http://localhost:4180/', { kind: 'own', path: '/' }],
    ['www.marlpit.example/trade', { kind: 'own', path: '/trade' }],
    ['/files/list.pdf', { kind: 'own', path: '/files/list.pdf' }],
    ['https://www.example.com/a', { kind: 'address', href: 'https://www.example.com/a' }],
    [' example.com ', { kind: 'address', href: 'https://example.com/' }],
    ['example.com/price list.pdf', { kind: 'address', href: 'https://example.com/price%20list.pdf' }],
    ['http://example.com:8080/x?y#z', { kind: 'address', href: 'http://example.com:8080/x?y#z' }],
    ['shop@example.com', { kind: 'email', address: 'shop@example.com' }],
    ['mailto:shop@example.com', { kind: 'email', address: 'shop@example.com' }],
    // A number kept free for stories (Ofcom).
    ['+44 20 7946 0000', { kind: 'phone', number: '+44 20 7946 0000' }],
    ['tel:020-7946-0000', { kind: 'phone', number: '020-7946-0000' }],
  ])('%s', (text, led) => expect(recognise(text, OWN)).toEqual(led))

  it.each([
    'javascript:alert(1)',
    'JAVASCRIPT:alert(1)',
    'data:text/html,x',
    'file:///etc/passwd',
    'ftp://example.com/x',
    '//example.com',
    'price list',
    'price-list.pd!',
    'and/or',
    '2026',
    '',
    'https://',
    'http://exa mple.com',
    'mailto:',
    'tel:call me',
  ])('%j leads nowhere', text => expect(recognise(text, OWN)).toBeUndefined())
})
