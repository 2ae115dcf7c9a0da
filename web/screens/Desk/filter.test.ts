import { describe, expect, it } from 'vitest';
import { askedBy, narrowedBy, readFilter, writeFilter } from './filter.ts';

const read = (query: string) => readFilter(new URLSearchParams(query));

describe('the filter of the Desk', () => {
  it('stands in the address, and an address says the same again', () => {
    for (const query of ['', 'state=any&q=terns', 'entity=IE&code=costCentre%3A410&off=tax&min=250&is=mine%2Cagain'])
      expect(writeFilter(read(query))).toBe(query);
  });
  it('leaves out what narrows nothing, and what no filter can be', () => {
    expect(writeFilter(read('state=in review&q=%20&person='))).toBe('');
    expect(read('off=colour&is=mine,purple')).toMatchObject({ off: '', is: ['mine'], state: 'in review' });
  });
  it('asks for no number that is still being typed', () => {
    expect(askedBy(read('min=12.&max=1200.5&older=14'))).toBe('max=1200.5&older=14');
    expect(writeFilter(read('min=12.'))).toBe('min=12.');
  });
  it('counts what narrows besides the state and the words', () => {
    expect([narrowedBy(read('q=terns&state=any')), narrowedBy(read('off=tax&is=mine,again&min=5'))]).toEqual([0, 4]);
  });
});
