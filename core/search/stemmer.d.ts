declare module 'wink-porter2-stemmer' {
  export default function stem(word: string): string;
}
