export const stateWords: Record<string, string> = {
  todo: 'to do',
  done: 'done',
  stopped: 'stop',
  held: 'held',
};
