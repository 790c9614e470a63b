declare module 'stopword' {
  type List = readonly string[];
  const lists: Record<'ara' | 'deu' | 'eng' | 'fra' | 'ita' | 'nld' | 'por' | 'spa', List>;
  export default lists;
}
