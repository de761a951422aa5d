/** Where there is room for one column: the query of the mixin `phone` in style/_media.scss, for what a script draws. */
export const PHONE =
  '(max-width: 720px), (max-width: 1100px) and (orientation: portrait), (max-height: 500px)';
