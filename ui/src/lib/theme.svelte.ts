// Light or dark: the system's choice until the person makes one, which is kept
// in this browser.

export type Theme = 'light' | 'dark';

const KEY = 'yokeswap-theme';

function stored(): Theme | null {
  const value = localStorage.getItem(KEY);
  return value === 'light' || value === 'dark' ? value : null;
}

const system = matchMedia('(prefers-color-scheme: dark)');

const state = $state<{ theme: Theme }>({ theme: stored() ?? (system.matches ? 'dark' : 'light') });

export function theme(): Theme {
  return state.theme;
}

export function applyTheme(): void {
  document.documentElement.classList.toggle('dark', state.theme === 'dark');
}

export function switchTheme(): void {
  state.theme = state.theme === 'dark' ? 'light' : 'dark';
  localStorage.setItem(KEY, state.theme);
  applyTheme();
}

system.addEventListener('change', (event) => {
  if (stored()) return;
  state.theme = event.matches ? 'dark' : 'light';
  applyTheme();
});
