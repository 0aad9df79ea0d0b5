// Runs before anything is drawn, so that a dark theme does not flash light first.
document.documentElement.dataset.theme =
  localStorage.getItem('theme') ?? (matchMedia('(prefers-color-scheme: dark)').matches ? 'night-tin' : 'enamel')
