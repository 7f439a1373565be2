export const en = {
  holdOfLabel: 'Hold of “{label}”',
  removeLabelHold: 'Remove “{label}”',
  addLabel: 'Add a label',
  chooseOne: 'choose one',
} as const;
