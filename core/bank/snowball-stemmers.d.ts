declare module 'snowball-stemmers' {
  const stemmers: { newStemmer(algorithm: string): { stem(word: string): string } };
  export default stemmers;
}
