// Runs before the first paint, so that nothing flashes by day at night.
try {
  document.documentElement.setAttribute('data-light', localStorage.getItem('voltrek.light') ?? 'day');
} catch {
  // Storage that is denied leaves it at day.
}
