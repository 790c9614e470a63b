/** How it is said that a document has comments and tracked changes: as names of what stands in their place at its end. */
export const unseenLabels = ({ comments, changes }: { comments: number; changes: number }): string[] => [
  ...(changes > 0 ? [`Tracked changes in this file: ${changes}, read as accepted`] : []),
  ...(comments > 0 ? [`Comments in this file: ${comments}`] : []),
];
