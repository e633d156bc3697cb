// What is fished for, as it is chosen.
export const SPECIES = [
  { value: 'trout', title: 'Trout' },
  { value: 'kokanee', title: 'Kokanee' },
  { value: 'striper', title: 'Striped bass' },
] as const
