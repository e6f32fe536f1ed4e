// The colours people name wires by, as they are drawn; others are grey.
const colours: Record<string, string> = {
  red: '#c62828', black: '#1c1c1c', white: '#f5f5f5', grey: '#8a8f94', gray: '#8a8f94', yellow: '#e6b800', orange: '#e07b1a',
  blue: '#2258b8', green: '#2e8540', brown: '#7a4a21', purple: '#6b3fa0', pink: '#e58fb1',
};

export function wireColour(name: string | undefined): string {
  return colours[(name ?? '').toLowerCase()] ?? '#8a8f94';
}
