/** The media query of a screen with room for one column: that of the mixin `phone` in style/_media.scss, for a script that draws. */
export const PHONE =
  '(max-width: 720px), (max-width: 1100px) and (orientation: portrait), (max-height: 500px)';
