import { Pipe, type PipeTransform } from '@angular/core';
import { dateText, type DateStyle } from '../model/dates';

/** A moment in the user's locale; nothing where there is none. */
@Pipe({ name: 'when' })
export class When implements PipeTransform {
  transform(at: string | number | Date | null | undefined, style: DateStyle): string {
    return at === null || at === undefined ? '' : dateText(at, style);
  }
}
