import { describe, expect, it } from 'vitest';
import { clientAddress } from './client-address.ts';

describe('where a request comes from', () => {
  it('is its connection where no proxy is ours, whatever a header says', () => {
    expect(clientAddress({ 'x-forwarded-for': '203.0.113.9' }, '127.0.0.1', 0)).toBe('127.0.0.1');
  });

  it('is what our own proxies have written down, the last of them first', () => {
    const headers = { 'x-forwarded-for': '6.6.6.6, 203.0.113.9, 10.0.0.2' };
    expect([clientAddress(headers, '10.0.0.1', 1), clientAddress(headers, '10.0.0.1', 2)]).toEqual(['10.0.0.2', '203.0.113.9']);
    expect(clientAddress({}, '10.0.0.1', 1)).toBe('10.0.0.1');
  });
});
