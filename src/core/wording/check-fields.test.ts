import { describe, expect, it } from 'vitest';
import type { WordField } from '../network/network-sheet.ts';
import { fieldProblem } from './check-fields.ts';

const rule = (key: WordField['key'], own: Partial<WordField> = {}): WordField => ({ key, ...own }) as WordField;
const poll = rule('poll', { poll: { minOptions: 2, maxOptions: 4, maxOption: 20, maxDays: 7 } } as Partial<WordField>);

describe('fieldProblem', () => {
  it.each([rule('link'), rule('slug'), rule('audience'), poll])('finds nothing in an empty field', (field) => {
    expect(fieldProblem(field, '  \n ')).toBeNull();
  });

  it.each([
    ['https://gullwickkites.example/a?b=c', null],
    ['gullwickkites.example', /start it with https/],
    ['https://', /incomplete/],
    ['javascript:alert(1)', /incomplete/],
  ])('a link “%s”', (text, problem) => {
    const found = fieldProblem(rule('link'), text);
    if (problem === null) expect(found).toBeNull();
    else expect(found).toMatch(problem);
  });

  it.each([
    ['big-blow-2026', null],
    ['größe-m', null],
    ['Big-Blow', /small letters/],
    ['big--blow', /single hyphens/],
    ['-blow', /small letters/],
    ['big blow', /small letters/],
  ])('a slug “%s”', (text, problem) => {
    const found = fieldProblem(rule('slug'), text);
    if (problem === null) expect(found).toBeNull();
    else expect(found).toMatch(problem);
  });

  it('takes a choice that the network has, and names all where it has not', () => {
    const button = rule('button', { options: [{ key: 'book', name: 'Book' }, { key: 'shop', name: 'Shop' }] } as Partial<WordField>);
    expect(fieldProblem(button, 'shop')).toBeNull();
    expect(fieldProblem(button, 'fly')).toBe('is none of Book, Shop');
  });

  it('takes what an account offers, and anything while nobody knows what it offers', () => {
    const board = rule('board');
    expect(fieldProblem(board, 'Kites', { board: ['Kites', 'Wind'] })).toBeNull();
    expect(fieldProblem(board, 'Boats', { board: ['Kites', 'Wind'] })).toBe('is none of the account’s: Kites, Wind');
    expect(fieldProblem(board, 'Boats')).toBeNull();
  });

  it.each([
    ['Which wind?\n- Morning\n- Evening\n3 days', null],
    ['-\n- Morning\n- Evening', /no question/],
    ['Which wind?\n- Morning', /needs 2 answers/],
    ['Which wind?\n- a\n- b\n- c\n- d\n- e', /has 5 answers; 4 are taken/],
    ['Which wind?\n- Morning\n- An evening with a coat on', /over 20 characters: “An evening with a coat on”/],
    ['Which wind?\n- Morning\n- morning', /same answer twice/],
    ['Which wind?\n- Morning\n- Evening\n9 days', /open for 9 days; 7 are the most/],
  ])('a poll %j', (text, problem) => {
    const found = fieldProblem(poll, text);
    if (problem === null) expect(found).toBeNull();
    else expect(found).toMatch(problem);
  });
});
