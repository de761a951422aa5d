import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideStyleSheets } from './style-sheets';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'vt-one',
  template: '<p>one</p>',
  styles: 'p { padding-top: 31px; }',
})
class One {}

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  selector: 'vt-other',
  template: '<p>other</p>',
  styles: 'p { padding-top: 7px; }',
})
class Other {}

describe('StyleSheets', () => {
  const paddingOf = (root: HTMLElement): string => getComputedStyle(root.querySelector('p')!).paddingTop;
  const inPage = (): number => document.querySelectorAll('style').length;

  it('styles each component by a sheet of its own, and writes none into the page', () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), provideStyleSheets()] });
    const [written, adopted] = [inPage(), document.adoptedStyleSheets.length];
    const one = TestBed.createComponent(One);
    const other = TestBed.createComponent(Other);
    document.body.append(one.nativeElement as Node, other.nativeElement as Node);
    expect(paddingOf(one.nativeElement as HTMLElement)).toBe('31px');
    expect(paddingOf(other.nativeElement as HTMLElement)).toBe('7px');
    expect(inPage()).toBe(written);
    expect(document.adoptedStyleSheets.length).toBe(adopted + 2);
    one.destroy();
    TestBed.createComponent(One);
    expect(document.adoptedStyleSheets.length)
      .withContext('made once')
      .toBe(adopted + 2);
    TestBed.resetTestingModule();
    expect(document.adoptedStyleSheets.length).withContext('gone with the application').toBe(adopted);
  });
});
