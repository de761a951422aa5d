import { ApplicationRef, inject } from '@angular/core';

/**
 * Makes a change and draws it in the same task, before the frame that lays it out and paints it: left to the framework, both may share one
 * long task. Call where a component or a store is made.
 */
export function drawnApart(): (change: () => void) => void {
  const page = inject(ApplicationRef);
  return (change) => {
    change();
    page.tick();
  };
}
