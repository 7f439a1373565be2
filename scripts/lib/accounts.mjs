/** Who can sign in to the demo: somebody for every right. */
export const ACCOUNTS = [
  { name: 'Ida Maren', email: 'ida@ostrel.example', password: 'ebb-and-flow', role: 'steward' },
  { name: 'Jon Tarrow', email: 'jon@ostrel.example', password: 'lock-and-quay', role: 'publisher' },
  { name: 'Ebba Lund', email: 'ebba@ostrel.example', password: 'pier-and-pole', role: 'editor' },
  { name: 'Per Dahlin', email: 'per@ostrel.example', password: 'fog-and-horn', role: 'reader' },
  { name: 'Siri Holme', email: 'siri@ostrel.example', password: 'sand-and-tide', role: 'colleague' },
];
