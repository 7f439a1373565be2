/** Who can sign in to the demo. */
export const ACCOUNTS = [
  { name: 'Ida Maren', email: 'ida@ostrel.example', password: 'ebb-and-flow', role: 'steward' },
  { name: 'Jon Tarrow', email: 'jon@ostrel.example', password: 'lock-and-quay', role: 'publisher' },
];
